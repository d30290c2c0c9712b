package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.history.Blame;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryIngest;
import dev.oddbeacon.core.history.HistoryMerge;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.LineBlock;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.history.PathLog;
import dev.oddbeacon.core.history.diff.FileDiff;
import dev.oddbeacon.core.history.diff.Patch;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.history.diff.TextLines;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
        List<HistoryReader> files = new ArrayList<>();
        List<ObjectId> tips = GitCommand.run(repository, "for-each-ref", "--format=%(objectname)", "refs/heads")
                .lines()
                .map(ObjectId::of)
                .toList();
        try (MirrorReader reader = new MirrorReader(repository)) {
            for (Path file : pasts(reader, tips, Files.createDirectories(into))) {
                files.add(new HistoryReader(file));
            }
        }
        return new CommitGraph(files);
    }

    /** The files with all that is before some commits. */
    static List<Path> pasts(MirrorReader reader, List<ObjectId> tips, Path into) throws IOException {
        List<Path> files = new ArrayList<>();
        new HistoryIngest(NewFiles.in(into), 2)
                .run(
                        reader::history,
                        tips,
                        Integer.MAX_VALUE,
                        false,
                        _ -> false,
                        (_, _) -> {},
                        () -> false,
                        files::add);
        return files;
    }

    @Test
    void changedFilesAndTheirCountsAreThoseOfGit() throws IOException, InterruptedException {
        for (long seed = 1; seed <= 3; seed++) {
            Path repository = MadeUpHistory.make(folder.resolve("r" + seed), seed, 300);
            CommitGraph graph = index(repository, folder.resolve("index" + seed));
            Map<String, TreeSet<String>> expected = numstat(repository);
            assertThat(graph.count()).isEqualTo(expected.size());
            for (int commit = 0; commit < graph.count(); commit++) {
                assertThat(changes(graph, commit))
                        .as("%d: %s", seed, graph.id(commit))
                        .isEqualTo(expected.get(graph.id(commit).toString()));
            }
        }
    }

    /** By commit: path, path before, lines added and removed. */
    static Map<String, TreeSet<String>> numstat(Path repository) throws IOException, InterruptedException {
        Map<String, TreeSet<String>> result = new HashMap<>();
        String commit = "";
        String[] parts = GitCommand.run(repository, "log", "--all", "--numstat", "-z", "-M", "--format=%x01%H")
                .split("\0");
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

    static TreeSet<String> changes(CommitGraph graph, int commit) {
        TreeSet<String> found = new TreeSet<>();
        HistoryReader file = graph.file(commit);
        HistoryReader.Changes changes = file.changes().of(graph.row(commit));
        while (changes.next()) {
            found.add(file.paths()[changes.path()] + " from " + file.paths()[changes.from()] + " "
                    + (changes.binary() ? "- -" : changes.added() + " " + changes.removed()));
        }
        return found;
    }

    @Test
    void changedLinesAreThoseOfGit() throws IOException, InterruptedException {
        for (long seed = 11; seed <= 13; seed++) {
            Path repository = MadeUpHistory.make(folder.resolve("r" + seed), seed, 300);
            CommitGraph graph = index(repository, folder.resolve("index" + seed));
            Map<String, List<String>> expected = patches(repository);
            Map<String, List<String>> found = lines(graph);
            assertThat(found.keySet()).isEqualTo(expected.keySet());
            expected.forEach(
                    (commit, lines) -> assertThat(found.get(commit)).as(commit).isEqualTo(lines));
        }
    }

    /** By commit: the lines that it changed with their signs, sorted. */
    static Map<String, List<String>> lines(CommitGraph graph) {
        Map<String, List<String>> found = new TreeMap<>();
        for (HistoryReader reader : graph.files()) {
            for (int block = 0; block < reader.lineBlockCount(); block++) {
                LineBlock lines = reader.lines(block);
                for (int run = 0; run < lines.runs(); run++) {
                    String sign = lines.isAdded(run) ? "+" : "-";
                    String id = reader.id(lines.commit(run)).toString();
                    String text = new String(
                            lines.text(),
                            lines.start(run),
                            lines.end(run) - lines.start(run) - 1,
                            StandardCharsets.UTF_8);
                    for (String line : text.split("\n", -1)) {
                        found.computeIfAbsent(id, _ -> new ArrayList<>()).add(sign + withoutReturn(line));
                    }
                }
            }
        }
        found.values().forEach(lines -> lines.sort(null));
        return found;
    }

    /** A last line that no line feed follows keeps its carriage return in the index. */
    private static String withoutReturn(String line) {
        return line.endsWith("\r") ? line.substring(0, line.length() - 1) : line;
    }

    /** By commit: the lines of its patch with their signs, sorted; Latin-1 where it is not UTF-8. */
    static Map<String, List<String>> patches(Path repository) throws IOException, InterruptedException {
        Map<String, List<String>> result = new TreeMap<>();
        String all = new String(
                GitCommand.bytes(repository, "log", "--all", "-p", "-M", "--format=%x01%H"),
                StandardCharsets.ISO_8859_1);
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

    /** All paths that ever were. */
    private static List<String> paths(CommitGraph graph) {
        TreeSet<String> paths = new TreeSet<>();
        graph.files().forEach(file -> paths.addAll(List.of(file.paths())));
        return List.copyOf(paths);
    }

    @Test
    void theLogOfAPathIsThatOfGit() throws IOException, InterruptedException {
        for (long seed = 21; seed <= 23; seed++) {
            Path repository = MadeUpHistory.make(folder.resolve("r" + seed), seed, 250);
            logsAreThoseOfGit(
                    repository, index(repository, folder.resolve("index" + seed)), List.of("src", "docs", "src/deep"));
        }
    }

    static void logsAreThoseOfGit(Path repository, CommitGraph graph, List<String> folders)
            throws IOException, InterruptedException {
        Past past = new Past(graph.files());
        int tip = graph.find(
                ObjectId.of(GitCommand.run(repository, "rev-parse", "main").strip()));
        try (MirrorReader reader = new MirrorReader(repository);
                MirrorReader.Objects objects = reader.objects()) {
            List<String> asked = new ArrayList<>(folders);
            asked.addAll(paths(graph));
            for (String path : asked) {
                List<String> expected = GitCommand.run(repository, "log", "--format=%H", "main", "--", path)
                        .lines()
                        .sorted()
                        .toList();
                List<String> found = new PathLog(past, objects, false)
                        .steps(tip, path, Integer.MAX_VALUE).stream()
                                .map(step -> graph.id(step.commit()).toString())
                                .sorted()
                                .toList();
                assertThat(found).as("%s: %s", repository, path).isEqualTo(expected);
            }
        }
    }

    @Test
    void originsOfLinesAreThoseOfGit() throws IOException, InterruptedException {
        int lines = 0;
        int different = 0;
        for (long seed = 31; seed <= 34; seed++) {
            Path repository = MadeUpHistory.make(folder.resolve("r" + seed), seed, 250);
            int[] counts = origins(repository, index(repository, folder.resolve("index" + seed)));
            lines += counts[0];
            different += counts[1];
        }
        // where the same lines stand several times, which of them is new is a matter of taste
        assertThat(different).as("of %d lines", lines).isLessThan(lines / 100);
    }

    /** How many lines of all files have an origin, and how many of them another one than Git says. */
    static int[] origins(Path repository, CommitGraph graph) throws IOException, InterruptedException {
        int[] counts = new int[2];
        Past past = new Past(graph.files());
        int tip = graph.find(
                ObjectId.of(GitCommand.run(repository, "rev-parse", "main").strip()));
        try (MirrorReader reader = new MirrorReader(repository);
                MirrorReader.Objects objects = reader.objects()) {
            for (String path : GitCommand.run(repository, "ls-tree", "-r", "--name-only", "-z", "main")
                    .split("\0")) {
                if (path.endsWith(".dat")) {
                    continue;
                }
                List<String> expected = GitCommand.run(
                                repository, "blame", "--minimal", "--line-porcelain", "main", "--", path)
                        .lines()
                        .filter(line -> line.matches("[0-9a-f]{40} \\d+ \\d+.*"))
                        .map(line -> line.substring(0, 40))
                        .toList();
                List<String> found = new ArrayList<>();
                new Blame(past, objects, TextLines.Sameness.EXACT, Set.of())
                        .of(tip, path)
                        .forEach(origin -> {
                            for (int line = origin.fromLine(); line <= origin.toLine(); line++) {
                                found.add(graph.id(origin.commit()).toString());
                            }
                        });
                assertThat(found).as("%s: %s", repository, path).hasSameSizeAs(expected);
                for (int line = 0; line < found.size(); line++) {
                    counts[0]++;
                    counts[1] += found.get(line).equals(expected.get(line)) ? 0 : 1;
                }
            }
        }
        return counts;
    }

    @Test
    void patchesApply() throws IOException, InterruptedException {
        Path repository = MadeUpHistory.make(folder.resolve("r41"), 41, 120);
        Path work = folder.resolve("work");
        GitCommand.run(folder, "clone", "-q", "--no-checkout", repository.toString(), work.toString());
        List<String> commits = GitCommand.run(repository, "log", "--first-parent", "--format=%H", "main")
                .lines()
                .toList();
        try (MirrorReader reader = new MirrorReader(repository);
                MirrorReader.Objects objects = reader.objects()) {
            for (int i = 0; i + 1 < commits.size(); i++) {
                List<FileDiff> files = new ArrayList<>();
                for (PathChange change :
                        reader.changes(Optional.of(ObjectId.of(commits.get(i + 1))), ObjectId.of(commits.get(i)))) {
                    if (!change.path().endsWith(".dat") && !change.from().endsWith(".dat")) {
                        byte[] before = change.before().equals(PathChange.NOTHING)
                                ? new byte[0]
                                : objects.blob(change.before());
                        byte[] after =
                                change.after().equals(PathChange.NOTHING) ? new byte[0] : objects.blob(change.after());
                        files.add(FileDiff.of(change, before, after, TextLines.Sameness.EXACT, 3));
                    }
                }
                if (!files.isEmpty()) {
                    GitCommand.run(work, "checkout", "-q", "-f", commits.get(i + 1));
                    GitCommand.feed(work, Patch.of(files), "apply", "--index", "--whitespace=nowarn", "-");
                    assertThat(GitCommand.run(
                                    work, "diff", "--cached", "--name-only", commits.get(i), "--", ".", ":!*.dat"))
                            .as(commits.get(i))
                            .isEmpty();
                }
            }
        }
    }

    @Test
    void branchesThatContainACommitAreThoseOfGit() throws IOException, InterruptedException {
        Path repository = MadeUpHistory.make(folder.resolve("r51"), 51, 200);
        CommitGraph graph = index(repository, folder.resolve("index51"));
        Map<String, ObjectId> tips = new TreeMap<>();
        GitCommand.run(repository, "for-each-ref", "--format=%(refname:short) %(objectname)", "refs/heads")
                .lines()
                .forEach(line -> tips.put(line.split(" ")[0], ObjectId.of(line.split(" ")[1])));
        for (int commit = 0; commit < graph.count(); commit += 3) {
            var after = graph.descendants(commit);
            List<String> found = tips.entrySet().stream()
                    .filter(tip -> after.get(graph.find(tip.getValue())))
                    .map(Map.Entry::getKey)
                    .toList();
            assertThat(found)
                    .isEqualTo(GitCommand.run(
                                    repository,
                                    "branch",
                                    "--contains",
                                    graph.id(commit).toString(),
                                    "--format=%(refname:short)")
                            .lines()
                            .sorted()
                            .toList());
        }
    }

    @Test
    void mergedFilesAreAsTheyWere() throws IOException, InterruptedException {
        Path repository = MadeUpHistory.make(folder.resolve("r61"), 61, 150);
        CommitGraph graph = index(repository, folder.resolve("index61"));
        Path merged = folder.resolve("index61/merged");
        assertThat(HistoryMerge.write(graph.files(), (_, commit) -> commit % 2 == 0, merged))
                .isTrue();
        try (HistoryReader reader = new HistoryReader(merged)) {
            CommitGraph half = new CommitGraph(List.of(reader));
            assertThat(half.count()).isEqualTo((graph.count() + 1) / 2);
            for (int commit = 0; commit < half.count(); commit++) {
                int before = graph.find(half.id(commit));
                assertThat(half.commit(commit)).isEqualTo(graph.commit(before));
                assertThat(changes(half, commit)).isEqualTo(changes(graph, before));
                assertThat(lines(half, commit)).isEqualTo(lines(graph, before));
            }
        }
    }

    private static List<String> lines(CommitGraph graph, int commit) {
        HistoryReader reader = graph.file(commit);
        List<String> found = new ArrayList<>();
        for (int block = 0; block < reader.lineBlockCount(); block++) {
            LineBlock lines = reader.lines(block);
            for (int run = 0; run < lines.runs(); run++) {
                if (lines.commit(run) == graph.row(commit)) {
                    int line = 0;
                    for (String text : new String(
                                    lines.text(),
                                    lines.start(run),
                                    lines.end(run) - lines.start(run) - 1,
                                    StandardCharsets.UTF_8)
                            .split("\n", -1)) {
                        found.add(lines.change(run)
                                + (lines.isAdded(run) ? "+" : "-")
                                + lines.lineNumber(run, line++)
                                + text);
                    }
                }
            }
        }
        return found;
    }
}
