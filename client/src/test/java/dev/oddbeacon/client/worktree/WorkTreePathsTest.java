package dev.oddbeacon.client.worktree;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Paths of a repository as they are written where one stands, and back. */
class WorkTreePathsTest {
    private static final Path HERE = Path.of("").toAbsolutePath();

    @ParameterizedTest
    @CsvSource({
        "'', src/tide.c, src/tide.c",
        "src/, src/tide.c, tide.c",
        "src/main/, src/tide.c, ../tide.c",
        "docs/, src/tide.c, ../src/tide.c",
        "src/, README.md, ../README.md",
    })
    void areWrittenFromWhereOneStands(String prefix, String path, String local) {
        assertThat(new WorkTree(HERE, prefix, "tidewatch", "").local(path)).isEqualTo(local);
    }

    @Test
    void areFoundInTheRepositoryWhereverOneStands() {
        WorkTree workTree = new WorkTree(HERE.getParent(), HERE.getFileName() + "/", "tidewatch", "");
        assertThat(workTree.inRepository("tide.c")).contains(HERE.getFileName() + "/tide.c");
        assertThat(workTree.inRepository("../tide.c")).contains("tide.c");
        assertThat(workTree.inRepository(HERE.resolve("a/../tide.c").toString()))
                .contains(HERE.getFileName() + "/tide.c");
    }

    @Test
    void thatLeadOutOfTheWorkTreeAreNone() {
        WorkTree workTree = new WorkTree(HERE, "", "tidewatch", "");
        assertThat(workTree.inRepository("../elsewhere/tide.c")).isEmpty();
        assertThat(workTree.inRepository("")).isEmpty();
        assertThat(workTree.inRepository(HERE + "-other/tide.c")).isEmpty();
    }
}
