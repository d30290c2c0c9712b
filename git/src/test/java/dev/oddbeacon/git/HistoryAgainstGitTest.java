package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryIngest;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.LineBlock;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What the index knows of histories that were made up, against what Git says of them. */
class HistoryAgainstGitTest {
    @TempDir
    Path folder;

    /** Indexes all branches of a repository. */
    static CommitGraph index(Path repository, Path into) throws IOException, InterruptedException {
        Files.createDirectories(into);
        List<HistoryReader> files = new ArrayList<>();
        List<ObjectId> tips = GitCommand.run(repository, "for-each-ref", "--format=%(objectname)", "refs/heads").lines().map(ObjectId::of).toList();
        try (MirrorReader reader = new MirrorReader(repository)) {
            new HistoryIngest(into, 2).run(reader::history, tips, Integer.MAX_VALUE, _ -> false, (_, _) -> { }, () -> false, file -> files.add(new HistoryReader(file)));
        }
        return new CommitGraph(files);
    }

    @Test
    void changedFilesAndTheirCountsAreThoseOfGit() throws IOException, InterruptedException {
        for (long seed = 1; seed <= 3; seed++) {
            Path repository = MadeUpHistory.make(folder.resolve("r" + seed), seed, 300);
            CommitGraph graph = index(repository, folder.resolve("index" + seed));
            Map<String, TreeSet<String>> expected = numstat(repository);
            assertThat(graph.count()).isEqualTo(expected.size());
            for (int commit = 0; commit < graph.count(); commit++) {
                assertThat(changes(graph, commit)).as("%d: %s", seed, graph.id(commit)).isEqualTo(expected.get(graph.id(commit).toString()));
            }
        }
    }

    /** By commit: path, path before, lines added and removed. */
    private static Map<String, TreeSet<String>> numstat(Path repository) throws IOException, InterruptedException {
        Map<String, TreeSet<String>> result = new HashMap<>();
        String commit = "";
        String[] parts = GitCommand.run(repository, "log", "--all", "--numstat", "-z", "-M", "--format=%x01%H").split("\0");
        for (int i = 0; i < parts.length; i++) {
            String part = parts[i].replaceFirst("^\n+", "");
            if (part.startsWith("\u0001")) {
                commit = part.substring(1, 41);
                result.put(commit, new TreeSet<>());
                part = part.substring(41).replaceFirst("^\n+", "");
            }
            if (part.isEmpty()) {
                continue;
            }
            String[] fields = part.split("\t", -1);
            String from = fields[2];
            String to = fields[2];
            if (fields[2].isEmpty()) {
                from = parts[++i];
                to = parts[++i];
            }
            result.get(commit).add(to + " from " + from + " " + fields[0] + " " + fields[1]);
        }
        return result;
    }

    private static TreeSet<String> changes(CommitGraph graph, int commit) {
        TreeSet<String> found = new TreeSet<>();
        HistoryReader file = graph.file(commit);
        HistoryReader.Changes changes = file.changes().of(graph.row(commit));
        while (changes.next()) {
            found.add(file.paths()[changes.path()] + " from " + file.paths()[changes.from()] + " " + (changes.binary() ? "- -" : changes.added() + " " + changes.removed()));
        }
        return found;
    }

    @Test
    void changedLinesAreThoseOfGit() throws IOException, InterruptedException {
        for (long seed = 11; seed <= 13; seed++) {
            Path repository = MadeUpHistory.make(folder.resolve("r" + seed), seed, 300);
            CommitGraph graph = index(repository, folder.resolve("index" + seed));
            Map<String, List<String>> expected = patches(repository);
            Map<String, List<String>> found = new TreeMap<>();
            for (int file = 0; file < graph.files().size(); file++) {
                HistoryReader reader = graph.files().get(file);
                for (int block = 0; block < reader.lineBlockCount(); block++) {
                    LineBlock lines = reader.lines(block);
                    for (int run = 0; run < lines.runs(); run++) {
                        String sign = lines.isAdded(run) ? "+" : "-";
                        String id = reader.id(lines.commit(run)).toString();
                        String text = new String(lines.text(), lines.start(run), lines.end(run) - lines.start(run) - 1, StandardCharsets.UTF_8);
                        for (String line : text.split("\n", -1)) {
                            found.computeIfAbsent(id, _ -> new ArrayList<>()).add(sign + withoutReturn(line));
                        }
                    }
                }
            }
            found.values().forEach(lines -> lines.sort(null));
            assertThat(found.keySet()).isEqualTo(expected.keySet());
            expected.forEach((commit, lines) -> assertThat(found.get(commit)).as(commit).isEqualTo(lines));
        }
    }

    /** A last line that no line feed follows keeps its carriage return in the index. */
    private static String withoutReturn(String line) {
        return line.endsWith("\r") ? line.substring(0, line.length() - 1) : line;
    }

    /** By commit: the lines of its patch with their signs, sorted; Latin-1 where it is not UTF-8. */
    private static Map<String, List<String>> patches(Path repository) throws IOException, InterruptedException {
        Map<String, List<String>> result = new TreeMap<>();
        String all = new String(GitCommand.bytes(repository, "log", "--all", "-p", "-M", "--format=%x01%H"), StandardCharsets.ISO_8859_1);
        String commit = "";
        boolean inHunk = false;
        for (String line : all.split("\n", -1)) {
            if (line.startsWith("\u0001")) {
                commit = line.substring(1);
                inHunk = false;
            } else if (line.startsWith("diff --git")) {
                inHunk = false;
            } else if (line.startsWith("@@")) {
                inHunk = true;
            } else if (inHunk && (line.startsWith("+") || line.startsWith("-"))) {
                String utf8 = new String(line.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
                String text = utf8.indexOf(0xFFFD) >= 0 ? line : utf8;
                result.computeIfAbsent(commit, _ -> new ArrayList<>()).add(withoutReturn(text));
            }
        }
        result.values().forEach(lines -> lines.sort(null));
        return result;
    }
}
