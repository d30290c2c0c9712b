package dev.oddbeacon.core.lines;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.query.matching.Plan;
import dev.oddbeacon.core.search.Effort;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.search.PlannedPieces;
import dev.oddbeacon.core.search.SortedInts;
import dev.oddbeacon.core.segment.SegmentReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CandidatesTest {
    @Nested
    class OfASegment {
        @TempDir
        Path folder;

        private Library library;

        @BeforeEach
        void write() throws IOException {
            library = new Library(folder);
            library.add(
                    "r",
                    new MemoryTree()
                            .file("a", "a tern\nand a plover".getBytes(StandardCharsets.UTF_8))
                            .file("b", "a TERN".getBytes(StandardCharsets.UTF_8))
                            .file("c", "a plover".getBytes(StandardCharsets.UTF_8)));
        }

        @AfterEach
        void close() {
            library.close();
        }

        private Optional<Integer> candidates(Plan plan) {
            SegmentReader segment = library.view().segments().getFirst();
            return PlannedPieces.of(segment, new Effort(), false).of(plan).map(pieces -> pieces.length);
        }

        @Test
        void aTextIsLookedUpInAnyCase() {
            assertThat(candidates(Plan.holds("Tern"))).hasValue(2);
            assertThat(candidates(Plan.holds("gannet"))).hasValue(0);
        }

        @Test
        void andAndOrAreFollowed() {
            Plan tern = Plan.holds("tern");
            Plan plover = Plan.holds("plover");
            assertThat(candidates(Plan.allOf(List.of(tern, plover)))).hasValue(1);
            assertThat(candidates(Plan.anyOf(List.of(tern, plover)))).hasValue(3);
            assertThat(candidates(Plan.allOf(List.of(Plan.ANYTHING, tern)))).hasValue(2);
        }

        @Test
        void textsOfUnderThreeBytesNarrowNothing() {
            assertThat(candidates(Plan.holds("te"))).isEmpty();
            assertThat(candidates(Plan.anyOf(List.of(Plan.holds("tern"), Plan.holds("p")))))
                    .isEmpty();
            assertThat(candidates(Plan.holds("€"))).as("three bytes are enough").hasValue(0);
        }
    }

    @Test
    void intersectionAndUnionAreThoseOfSets() {
        Random random = new Random(9);
        for (int round = 0; round < 2_000; round++) {
            TreeSet<Integer> a = random(random);
            TreeSet<Integer> b = random(random);
            TreeSet<Integer> both = new TreeSet<>(a);
            both.retainAll(b);
            TreeSet<Integer> either = new TreeSet<>(a);
            either.addAll(b);
            assertThat(SortedInts.intersection(array(a), array(b))).containsExactly(array(both));
            assertThat(SortedInts.union(array(a), array(b))).containsExactly(array(either));
        }
    }

    private static TreeSet<Integer> random(Random random) {
        TreeSet<Integer> numbers = new TreeSet<>();
        int most = random.nextInt(8) == 0 ? 1_000 : 20;
        for (int i = random.nextInt(most); i > 0; i--) {
            numbers.add(random.nextInt(2 * most));
        }
        return numbers;
    }

    private static int[] array(TreeSet<Integer> numbers) {
        return numbers.stream().mapToInt(Integer::intValue).toArray();
    }
}
