package dev.oddbeacon.core.places;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.search.SearchContext;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlaceMatcherTest {
    @TempDir
    Path folder;

    private SearchContext context;

    @BeforeEach
    void index() throws Exception {
        Library library = new Library(folder);
        library.add(
                "berth-planner",
                new MemoryTree()
                        .file("src/main/plan/Planner.java", "x".getBytes(UTF_8))
                        .file("src/test/plan/Planner.java", "x".getBytes(UTF_8))
                        .file("README.md", "x".getBytes(UTF_8)));
        library.add(
                "hull",
                new MemoryTree()
                        .file("src/ring.c", "x".getBytes(UTF_8))
                        .file("README.md", "x".getBytes(UTF_8))
                        .file("deep/plan/Planner.java", "x".getBytes(UTF_8)));
        context = library.context();
    }

    private List<PlaceMatcher.Matched> match(String text) {
        return PlaceMatcher.match(context, Scope.EVERYTHING, PlaceParser.parse(text, 100));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "/builds/7/berth-planner/src/main/plan/Planner.java:1 | berth-planner/src/main/plan/Planner.java",
                "main/plan/Planner.java:1                             | berth-planner/src/main/plan/Planner.java",
                "at plan.Planner.run(Planner.java:1)                  | hull/deep/plan/Planner.java berth-planner/src/main/plan/Planner.java berth-planner/src/test/plan/Planner.java",
                "hull/README.md:1                                     | hull/README.md",
                "README.md:1                                          | berth-planner/README.md hull/README.md",
                "../src/ring.c:1                                      | hull/src/ring.c",
                "C:\\w\\hull\\src\\ring.c:1                           | hull/src/ring.c",
            })
    void meansTheFilesThatAgreeOnTheMostFoldersFromTheEnd(String text, String files) {
        List<String> found = match(text).getFirst().candidates().stream()
                .map(one -> context.view().branch(one.branchNumber()).repository() + "/" + one.path())
                .toList();
        assertThat(String.join(" ", found)).isEqualTo(files);
    }

    @Test
    void aNameAloneInOtherFoldersIsAGuess() {
        assertThat(match("elsewhere/ring.c:1").getFirst().isGuess()).isTrue();
        assertThat(match("src/ring.c:1").getFirst().isGuess()).isFalse();
        assertThat(match("ring.c:1").getFirst().isGuess()).isFalse();
        assertThat(match("/a/README.md:1").getFirst().isGuess()).isFalse(); // that is its whole path
    }

    @Test
    void whatIsNotIndexedHasNoFiles() {
        assertThat(match("usr/include/stdio.h:3").getFirst().candidates()).isEmpty();
    }
}
