package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.history.CommitGraph;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Comparator;
import java.util.Enumeration;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.jar.JarEntry;
import java.util.jar.JarFile;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The history that all releases of a library make, committed one after the other, against what Git says of it. */
class ReleasesAgainstGitTest {
    private static final Path RELEASES = Path.of("target", "releases");

    @TempDir
    Path folder;

    @Test
    void changesLinesLogsAndOriginsAreThoseOfGit() throws IOException, InterruptedException {
        Path work = folder.resolve("work");
        GitCommand.run(folder, "init", "-q", "-b", "main", work.toString());
        List<Path> releases = releases();
        assertThat(releases).hasSizeGreaterThan(20);
        for (Path release : releases) {
            GitCommand.run(work, "rm", "-r", "-q", "--ignore-unmatch", ".");
            unpack(release, work);
            GitCommand.run(work, "add", "-A");
            GitCommand.run(
                    work,
                    "-c",
                    "user.name=Release",
                    "-c",
                    "user.email=release@example.com",
                    "commit",
                    "-q",
                    "-m",
                    release.getFileName().toString());
        }
        Path repository = folder.resolve("releases.git");
        GitCommand.run(folder, "clone", "-q", "--bare", work.toString(), repository.toString());
        CommitGraph graph = HistoryAgainstGitTest.index(repository, folder.resolve("index"));
        changedFilesAreThoseOfGit(repository, graph);
        changedLinesAreThoseOfGit(repository, graph);
        HistoryAgainstGitTest.logsAreThoseOfGit(repository, graph, List.of("org/apache/commons/lang3/text", "org"));
        int[] origins = HistoryAgainstGitTest.origins(repository, graph);
        assertThat(origins[0]).isGreaterThan(50_000);
        assertThat(origins[1]).as("of %d lines", origins[0]).isLessThan(origins[0] / 50);
    }

    /**
     * Git takes a difference that is good enough sooner than we do: of few files it tells more lines, as many added as
     * removed.
     */
    private static void changedFilesAreThoseOfGit(Path repository, CommitGraph graph)
            throws IOException, InterruptedException {
        Map<String, TreeSet<String>> expected = HistoryAgainstGitTest.numstat(repository);
        int files = 0;
        int different = 0;
        for (int commit = 0; commit < graph.count(); commit++) {
            Iterator<String> git = expected.get(graph.id(commit).toString()).iterator();
            for (String change : HistoryAgainstGitTest.changes(graph, commit)) {
                String told = git.next();
                files++;
                if (!change.equals(told)) {
                    different++;
                    String[] ours = change.split(" ");
                    String[] theirs = told.split(" ");
                    assertThat(Arrays.copyOf(ours, 3)).isEqualTo(Arrays.copyOf(theirs, 3));
                    int moreAdded = Integer.parseInt(theirs[3]) - Integer.parseInt(ours[3]);
                    assertThat(moreAdded)
                            .as(change)
                            .isPositive()
                            .isEqualTo(Integer.parseInt(theirs[4]) - Integer.parseInt(ours[4]));
                }
            }
            assertThat(git).isExhausted();
        }
        assertThat(files).isGreaterThan(2_000);
        assertThat(different).as("of %d changed files", files).isLessThan(files / 50);
    }

    private static void changedLinesAreThoseOfGit(Path repository, CommitGraph graph)
            throws IOException, InterruptedException {
        Map<String, List<String>> found = HistoryAgainstGitTest.lines(graph);
        int all = 0;
        int different = 0;
        for (Map.Entry<String, List<String>> expected :
                HistoryAgainstGitTest.patches(repository).entrySet()) {
            List<String> ours = found.get(expected.getKey());
            all += expected.getValue().size();
            int common = 0;
            for (int i = 0, k = 0; i < ours.size() && k < expected.getValue().size(); ) {
                int order = ours.get(i).compareTo(expected.getValue().get(k));
                common += order == 0 ? 1 : 0;
                i += order <= 0 ? 1 : 0;
                k += order >= 0 ? 1 : 0;
            }
            different += ours.size() + expected.getValue().size() - 2 * common;
        }
        assertThat(different).as("of %d lines", all).isLessThan(all / 50);
    }

    /** The archives, the oldest release first. */
    private static List<Path> releases() throws IOException {
        try (Stream<Path> files = Files.list(RELEASES)) {
            return files.sorted(Comparator.comparingInt(ReleasesAgainstGitTest::number))
                    .toList();
        }
    }

    /** 3.8.1 is 30801. */
    private static int number(Path release) {
        String[] parts = release.getFileName()
                .toString()
                .replaceAll("^commons-lang3-|-sources.jar$", "")
                .split("\\.");
        int number = 0;
        for (int i = 0; i < 3; i++) {
            number = number * 100 + (i < parts.length ? Integer.parseInt(parts[i]) : 0);
        }
        return number;
    }

    private static void unpack(Path archive, Path into) throws IOException {
        try (JarFile jar = new JarFile(archive.toFile())) {
            for (Enumeration<JarEntry> entries = jar.entries(); entries.hasMoreElements(); ) {
                JarEntry entry = entries.nextElement();
                Path file = into.resolve(entry.getName()).normalize();
                if (!entry.isDirectory() && file.startsWith(into)) {
                    Files.createDirectories(file.getParent());
                    try (InputStream content = jar.getInputStream(entry)) {
                        Files.copy(content, file);
                    }
                }
            }
        }
    }
}
