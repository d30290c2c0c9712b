package dev.oddbeacon.core.exclusion;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.SnapshotWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.SequencedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ExclusionSetTest {
    private static final String[] NAMES = {
        "a", "b", "ab", "gen", "x.po", "gen.po", "lang", "Lang", "a b", "[x]", "b.c.po", "#h", "!n"
    };
    private static final String[] PARTS = {
        "a",
        "b",
        "*",
        "?",
        "**",
        "gen",
        "*.po",
        "[ab]",
        "[!a]*",
        "[[:alpha:]]",
        "[a-c]b",
        "lang",
        "x.*",
        "\\[x\\]",
        "*b*",
        "a\\ b",
        "*.c.po",
        "***",
        "\\#h",
        "g*n",
        "[^b]"
    };
    private static final int ROUNDS = 400;

    @TempDir
    private Path folder;

    /**
     * Git is the judge: which pattern decides each file, for random trees and patterns. Beyond ASCII the two differ: ?
     * is a character to us, a byte to Git.
     */
    @Test
    void decidesAsGitDoes() throws Exception {
        long seed = Long.getLong("oddbeacon.seed", 41L);
        System.out.println("exclusion set property test: seed " + seed);
        Random random = new Random(seed);
        git("init", "-q");
        for (int round = 0; round < ROUNDS; round++) {
            List<String> patterns = new ArrayList<>();
            for (int i = random.nextInt(6); i >= 0; i--) {
                patterns.add(pattern(random));
            }
            String text = String.join("\n", patterns) + "\n";
            TreeSet<String> paths = new TreeSet<>();
            while (paths.size() < 25) {
                paths.add(path(random));
            }
            paths.removeIf(
                    path -> paths.stream().anyMatch(other -> other.startsWith(path + "/"))); // a file is no folder
            assertThat(decisions(text, paths))
                    .as("seed %s, patterns %s", seed, patterns)
                    .isEqualTo(decisionsOfGit(text, paths));
        }
    }

    private static String path(Random random) {
        StringBuilder path = new StringBuilder(NAMES[random.nextInt(NAMES.length)]);
        for (int i = random.nextInt(4); i > 0; i--) {
            path.append('/').append(NAMES[random.nextInt(NAMES.length)]);
        }
        return path.toString();
    }

    private static String pattern(Random random) {
        StringBuilder pattern =
                new StringBuilder(random.nextInt(4) == 0 ? "!" : "").append(random.nextInt(4) == 0 ? "/" : "");
        String part = PARTS[random.nextInt(PARTS.length)];
        pattern.append(part);
        for (int i = random.nextInt(3); i > 0; i--) {
            String next = PARTS[random.nextInt(PARTS.length)];
            boolean joined = random.nextInt(3) == 0
                    && !part.startsWith("**")
                    && !next.startsWith("**"); // x**/y: Git does not do what its manual says
            pattern.append(joined ? "" : "/").append(next);
            part = next;
        }
        return pattern.append(random.nextInt(4) == 0 ? "/" : "")
                .append(random.nextInt(6) == 0 ? "  " : "")
                .toString();
    }

    /** By path, the line of the pattern that puts it out. */
    private Map<String, Integer> decisions(String text, SequencedSet<String> paths) throws IOException {
        ExclusionSet.Parsed parsed = ExclusionSet.parse(text);
        assertThat(parsed.mistakes()).isEmpty();
        Map<String, Integer> lines = new TreeMap<>();
        BitSet excluded;
        try (SnapshotReader snapshot = snapshot(List.copyOf(paths))) {
            parsed.set().walk(snapshot, (_, path, charge) -> {
                if (charge.isOut()) {
                    lines.put(
                            path, parsed.set().patterns().get(charge.pattern()).line());
                }
            });
            excluded = parsed.set().excluded(snapshot);
        }
        assertThat(excluded.cardinality()).isEqualTo(lines.size());
        return lines;
    }

    private SnapshotReader snapshot(List<String> paths) throws IOException {
        Path file = folder.resolve("files.snapshot");
        Files.deleteIfExists(file);
        SnapshotWriter.write(
                file,
                "",
                paths.stream()
                        .map(path -> new SnapshotFile(
                                path, new ObjectId(1, 2, 3), SnapshotFile.Standing.SEARCHED, 1, 1, "text", 0))
                        .toList());
        return new SnapshotReader(file);
    }

    private Map<String, Integer> decisionsOfGit(String text, SequencedSet<String> paths) throws Exception {
        Files.writeString(folder.resolve(".gitignore"), text);
        Path input = folder.resolve(".git/paths");
        Files.writeString(input, String.join("\0", paths) + "\0");
        Process git = builder("check-ignore", "--no-index", "-v", "-z", "--stdin")
                .redirectInput(input.toFile())
                .start();
        String output = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(git.waitFor()).isLessThan(2);
        Map<String, Integer> lines = new TreeMap<>();
        String[] fields = output.split("\0");
        for (int i = 0; i + 3 < fields.length; i += 4) {
            if (!fields[i + 2].startsWith("!")) {
                lines.put(fields[i + 3], Integer.valueOf(fields[i + 1]));
            }
        }
        return lines;
    }

    private void git(String... arguments) throws Exception {
        assertThat(builder(arguments).start().waitFor()).isZero();
    }

    private ProcessBuilder builder(String... arguments) {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        ProcessBuilder builder =
                new ProcessBuilder(command).directory(folder.toFile()).redirectError(ProcessBuilder.Redirect.DISCARD);
        builder.environment().putAll(Map.of("GIT_CONFIG_NOSYSTEM", "1", "GIT_CONFIG_GLOBAL", "/dev/null"));
        return builder;
    }

    @Test
    void mistakesAreToldWithTheirLineAndDoNotKeepOthersFromBeingRead() {
        ExclusionSet.Parsed parsed = ExclusionSet.parse("gen/\n[ab\n# a comment\n\nx\\\n!\n[[:vowel:]]\n*.po");
        assertThat(parsed.set().patterns()).extracting(ExclusionPattern::text).containsExactly("gen/", "*.po");
        assertThat(parsed.mistakes())
                .extracting(mistake -> mistake.message().substring(0, 7))
                .containsExactly("Line 2:", "Line 5:", "Line 6:", "Line 7:");
        assertThat(parsed.mistakes().getFirst().position()).isEqualTo(5);
    }

    @Test
    void tooManyPatternsAreRefused() {
        ExclusionSet.Parsed parsed = ExclusionSet.parse("a/b\n".repeat(ExclusionSet.MOST_PATTERNS + 1));
        assertThat(parsed.mistakes())
                .singleElement()
                .satisfies(mistake -> assertThat(mistake.message()).contains("20001 patterns"));
    }
}
