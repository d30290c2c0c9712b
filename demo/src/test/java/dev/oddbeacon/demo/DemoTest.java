package dev.oddbeacon.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.eclipse.jgit.lib.Repository;
import org.eclipse.jgit.revwalk.RevWalk;
import org.eclipse.jgit.storage.file.FileRepositoryBuilder;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DemoTest {
    @TempDir
    Path folder;

    private static String head(Path repository) throws IOException {
        try (Repository git =
                new FileRepositoryBuilder().setGitDir(repository.toFile()).build()) {
            return git.resolve("HEAD").name();
        }
    }

    @Test
    void everyRunGivesTheSameCommits() throws IOException {
        Path list = DemoMain.build(Path.of("repositories"), folder.resolve("one"));
        DemoMain.build(Path.of("repositories"), folder.resolve("two"));
        assertThat(Files.readAllLines(list)).hasSize(7);
        for (String line : Files.readAllLines(list)) {
            String repository = line.split("\t")[1];
            assertThat(head(folder.resolve("one").resolve(repository)))
                    .isEqualTo(head(folder.resolve("two").resolve(repository)));
        }
    }

    @Test
    void historyIsToldBackwards() throws IOException {
        DemoMain.build(Path.of("repositories"), folder);
        try (Repository git = new FileRepositoryBuilder()
                        .setGitDir(folder.resolve("berth-planner.git").toFile())
                        .build();
                RevWalk walk = new RevWalk(git)) {
            assertThat(text(git, "v1.0:src/main/java/quillhaven/berth/plan/MooringBuffer.java"))
                    .contains("ofMinutes(5)");
            assertThat(text(git, "main:src/main/java/quillhaven/berth/plan/MooringBuffer.java"))
                    .contains("ofMinutes(10)");
            assertThat(git.resolve("v1.0:docs/rules.md")).isNull();
            assertThat(walk.parseCommit(git.resolve("v2.0")).getParentCount())
                    .as("a merge")
                    .isEqualTo(2);
        }
    }

    private static String text(Repository git, String file) throws IOException {
        return new String(git.open(git.resolve(file)).getBytes(), java.nio.charset.StandardCharsets.UTF_8);
    }
}
