package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class AttributesAgainstGitTest {
    private static final String[] PARTS = {"a", "b", "*", "**", "?", "/", "/", ".c", "[ab]", "x"};
    private static final List<String> PATHS =
            List.of("a", "b", "a.c", "a/b", "a/b.c", "x/a/b", "a/x/b", "ab/a.c", "x/ab", "a/b/x.c", "b/a/b/a");

    @TempDir
    Path folder;

    @Test
    void patternsGiveAttributesToTheFilesThatGitGivesThemTo() throws Exception {
        GitCommand.run(folder, "init", "-q");
        Random random = new Random(23);
        for (int round = 0; round < 300; round++) {
            StringBuilder pattern = new StringBuilder();
            for (int i = random.nextInt(5); i >= 0; i--) {
                pattern.append(PARTS[random.nextInt(PARTS.length)]);
            }
            boolean isSaidByGit = pattern.toString().matches("(?:(?!\\*\\*).|(?<![^/])\\*\\*(?![^/]))*");
            if (!isSaidByGit) {
                continue; // stars beside other characters: Git's answer depends on its version
            }
            String line = pattern + " oddbeacon-type=java\n";
            Files.writeString(folder.resolve(".gitattributes"), line);
            List<String> arguments = new ArrayList<>(List.of("check-attr", "oddbeacon-type", "--"));
            arguments.addAll(PATHS);
            List<String> told = GitCommand.run(folder, arguments.toArray(String[]::new))
                    .lines()
                    .toList();
            AttributeMarkings markings = new AttributeMarkings();
            markings.add(".gitattributes", line.getBytes(StandardCharsets.UTF_8));
            for (int i = 0; i < PATHS.size(); i++) {
                assertThat(markings.of(PATHS.get(i)).type().isPresent())
                        .as(pattern + " and " + PATHS.get(i))
                        .isEqualTo(told.get(i).endsWith(": java"));
            }
        }
    }

    @Test
    void aPatternWithManyStarsTakesNoLongerThanAnother() {
        AttributeMarkings markings = new AttributeMarkings();
        markings.add(".gitattributes", ("*a".repeat(40) + "b oddbeacon-type=java\n").getBytes(StandardCharsets.UTF_8));
        assertTimeoutPreemptively(Duration.ofSeconds(5), () -> markings.of("a".repeat(255)));
    }
}
