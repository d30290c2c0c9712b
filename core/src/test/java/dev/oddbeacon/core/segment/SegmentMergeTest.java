package dev.oddbeacon.core.segment;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SegmentMergeTest {
    @TempDir
    Path folder;

    private static ObjectId id(int number) {
        return new ObjectId(number, 0, 0);
    }

    private SegmentReader segment(String name, int firstId, String... texts) throws IOException {
        try (SegmentWriter writer = new SegmentWriter.Workshop().open(folder.resolve(name), "")) {
            for (int i = 0; i < texts.length; i++) {
                writer.addText(
                        id(firstId + i),
                        texts[i].length(),
                        new TextDecoder.Text(texts[i].getBytes(StandardCharsets.UTF_8), TextDecoder.Encoding.UTF_8),
                        _ -> Optional.empty());
            }
            writer.finish();
        }
        return new SegmentReader(folder.resolve(name));
    }

    @Test
    void keepsWhatIsWantedOnceAndDropsTheRest() throws IOException {
        try (SegmentReader one = segment("one", 1, "tern\n", "plover\n");
                SegmentReader two = segment("two", 2, "plover\n", "gannet\n")) {
            assertThat(SegmentMerge.write(
                            List.of(one, two),
                            (segment, blob) -> !segment.id(blob).equals(id(3)),
                            SegmentMerge.Languages.SAME,
                            folder.resolve("merged")))
                    .isTrue();
            try (SegmentReader merged = new SegmentReader(folder.resolve("merged"))) {
                merged.verify();
                assertThat(merged.blobCount()).isEqualTo(2);
                assertThat(merged.find(id(1))).isGreaterThanOrEqualTo(0);
                assertThat(merged.find(id(3))).isEqualTo(-1);
                assertThat(merged.words().similar("plovr", 1)).containsExactly("plover");
            }
            assertThat(SegmentMerge.write(
                            List.of(one), (_, _) -> false, SegmentMerge.Languages.SAME, folder.resolve("none")))
                    .isFalse();
            assertThat(folder.resolve("none")).doesNotExist();
        }
    }

    @Test
    void eightOfASizeAreDueAndOneThatIsMostlyUnwanted() throws IOException {
        List<SegmentReader> segments = new ArrayList<>();
        try (SegmentReader large = segment("large", 900, "x".repeat(3_000_000))) {
            segments.add(large);
            for (int i = 0; i < 7; i++) {
                segments.add(segment("s" + i, i, "tern\n"));
            }
            assertThat(SegmentMerge.due(segments, (_, _) -> true, 1 << 30)).isEmpty();
            segments.add(segment("s7", 7, "tern\n"));
            assertThat(SegmentMerge.due(segments, (_, _) -> true, 1 << 30))
                    .hasSize(8)
                    .doesNotContain(large);
            assertThat(SegmentMerge.due(segments, (segment, _) -> segment != large, 1 << 30))
                    .containsExactly(large);
            segments.subList(1, segments.size()).forEach(SegmentReader::close);
        }
    }

    @Test
    void similarWordsAreThoseThatComparingEachFinds() throws IOException {
        long seed = Long.getLong("oddbeacon.seed", 12L);
        System.out.println("similar words property test: seed " + seed);
        Random random = new Random(seed);
        TreeSet<String> words = new TreeSet<>();
        String letters = "aabbc\u00E9\u0434\uD835\uDD38"; // one of them outside the basic plane
        for (int i = 0; i < 3_000; i++) {
            words.add(word(random, letters));
        }
        try (SegmentReader segment = segment("words", 1, String.join(" ", words))) {
            for (int i = 0; i < 500; i++) {
                String wanted = word(random, letters);
                int edits = 1 + random.nextInt(2);
                List<String> expected = words.stream()
                        .filter(word -> EditDistance.of(word, wanted) <= edits)
                        .toList();
                assertThat(segment.words().similar(wanted, edits))
                        .as("seed %d: %s", seed, wanted)
                        .containsExactlyInAnyOrderElementsOf(expected);
            }
        }
    }

    private static String word(Random random, String letters) {
        int[] codePoints = letters.codePoints().toArray();
        StringBuilder word = new StringBuilder();
        for (int i = random.nextInt(8); i >= 0; i--) {
            word.appendCodePoint(codePoints[random.nextInt(codePoints.length)]);
        }
        return word.toString();
    }
}
