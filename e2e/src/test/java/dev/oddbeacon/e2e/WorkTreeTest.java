package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The client where somebody works: in a work tree, with lists and logs of other programs, with an editor, in the whole
 * terminal.
 */
class WorkTreeTest {
    @TempDir
    Path folder;

    private Path tree;

    @BeforeEach
    void cloneARepository() throws IOException {
        String location =
                Http.get(Demo.address(), "/api/v1/repositories/fare-gate").text("location");
        tree = folder.resolve("gate");
        GitFolder.create(folder.resolve("any")).git("clone", "-q", location, tree.toString());
    }

    private static Client.Result in(Path where, String input, Map<String, String> environment, String... arguments) {
        return Client.run(Demo.address(), where, input, environment, arguments);
    }

    private Client.Result in(String where, String... arguments) {
        return in(tree.resolve(where), "", Map.of(), arguments);
    }

    @Nested
    class Here {
        @Test
        void resultsAreLocalPathsOfTheFolderOneStandsIn() {
            Client.Result lines = in("internal", "lines", "--here", "--limit", "all", "ticket");
            assertThat(lines.lines())
                    .isNotEmpty()
                    .isNotEmpty()
                    .allSatisfy(line -> assertThat(
                                    tree.resolve("internal").resolve(line.substring(0, line.indexOf(':'))))
                            .exists());
            assertThat(lines.lines()).noneMatch(line -> line.startsWith("README"));
            assertThat(in("", "lines", "--here", "--only", "files", "ticket").lines())
                    .contains("README.md", "internal/ticket/ticket.go");
        }

        @Test
        void foundPathsFeedOtherPrograms() throws IOException, InterruptedException {
            String names = in("internal", "lines", "--here", "--only", "files", "--null", "--limit", "all", "ticket")
                    .out();
            for (String name : names.split("\0")) {
                assertThat(Files.readString(tree.resolve("internal").resolve(name)))
                        .containsIgnoringCase("ticket");
            }
            assertThat(names.split("\0")).hasSizeGreaterThan(1);
        }

        @Test
        void whatChangedHereIsFoundAsItIsNow() throws IOException {
            Path code = tree.resolve("internal/ticket/ticket.go");
            Files.writeString(code, "// One line more, of a ticket.\n" + Files.readString(code));
            Files.writeString(tree.resolve("notes.txt"), "A ticket that nobody committed.\n");
            Files.delete(tree.resolve("README.md"));
            Set<Path> before = foldersOfChanges();
            Client.Result now = in("", "lines", "--here", "--limit", "all", "--case", "ignore", "ticket");
            assertThat(foldersOfChanges()).as("what the client leaves behind").isEqualTo(before);
            assertThat(now.lines()).isNotEmpty().containsExactlyInAnyOrderElementsOf(scanned("ticket"));
            assertThat(now.err())
                    .contains("as this work tree is now: 2 files changed or new, 1 file gone since the indexed commit");
            assertThat(in("", "lines", "--here", "--only", "counts", "--case", "ignore", "ticket")
                            .lines()
                            .getLast())
                    .startsWith(scanned("ticket").size() + " hits in ");
            assertThat(in("", "lines", "--here", "--limit", "1", "ticket").err())
                    .contains("the first 1 of ");
            assertThat(in("", "files", "--here", "notes").lines()).containsExactly("notes.txt");
            assertThat(in("", "lines", "--here", "--format", "jsonl", "nobody committed")
                            .out())
                    .contains("\"commit\":\"" + "0".repeat(40) + "\"");
            assertThat(in("", "files", "--here", "--plain", "README").lines()).isEmpty();
            assertThat(in("", "symbols", "--here", "--plain", "ticket").lines())
                    .anyMatch(line -> line.startsWith("internal/ticket/ticket.go:3:9:"));
            Client.Result indexed = in("", "lines", "--here", "--as-indexed", "nobody committed");
            assertThat(indexed.lines()).isEmpty();
            assertThat(indexed.err()).doesNotContain("as this work tree is now");
        }

        @Test
        void whatGitIgnoresHereIsSearchedOnRequest() throws IOException {
            Files.writeString(tree.resolve(".git/info/exclude"), "*.log\n");
            Files.writeString(tree.resolve("run.log"), "an ignored whimbrel\n");
            assertThat(in("", "lines", "--here", "whimbrel").lines()).isEmpty();
            assertThat(in("", "lines", "--here", "--with-ignored", "whimbrel").lines())
                    .containsExactly("run.log:1:12: an ignored whimbrel");
            assertThat(in("", "lines", "--with-ignored", "whimbrel").err()).contains("--with-ignored goes with --here");
        }

        @Test
        void scopeAndSetsHoldForWhatChangedToo() throws IOException {
            Files.createDirectories(tree.resolve("internal/new"));
            Files.writeString(tree.resolve("internal/new/gull_test.go"), "package gull // whimbrel\n");
            Files.writeString(tree.resolve("gull.go"), "package gull // whimbrel\n");
            assertThat(in("internal", "lines", "--here", "--only", "files", "whimbrel")
                            .lines())
                    .containsExactly("new/gull_test.go");
            assertThat(in("", "lines", "--here", "--only", "files", "--not-trait", "test", "whimbrel")
                            .lines())
                    .containsExactly("gull.go");
            assertThat(in("", "lines", "--here", "--only", "files", "--region", "code", "whimbrel")
                            .lines())
                    .isEmpty();
            assertThat(in(
                                    "",
                                    "lines",
                                    "--here",
                                    "--only",
                                    "files",
                                    "--expression",
                                    "whimbrel and type(go) and not under(internal)")
                            .lines())
                    .containsExactly("gull.go");
        }

        @Test
        void aWorkTreeThatLacksTheIndexedCommitSaysSo() throws IOException {
            String location =
                    Http.get(Demo.address(), "/api/v1/repositories/fare-gate").text("location");
            GitFolder alone = GitFolder.create(folder.resolve("alone"))
                    .write("README.md", "All anew.\n")
                    .commit("Start");
            alone.git("config", "remote.elsewhere.url", location);
            alone.write("notes.txt", "whimbrel\n");
            Client.Result found = in(alone.path(), "", Map.of(), "lines", "--here", "whimbrel");
            assertThat(found.lines()).containsExactly("notes.txt:1:1: whimbrel");
            assertThat(found.err()).contains("is not here, git fetch brings it");
        }

        private static Set<Path> foldersOfChanges() throws IOException {
            try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
                return all.filter(path -> path.getFileName().toString().startsWith("oddbeacon-changed-"))
                        .collect(Collectors.toSet());
            }
        }

        /** The hits of a word, in any case, by a look at every file. */
        private List<String> scanned(String word) throws IOException {
            List<String> found = new ArrayList<>();
            try (Stream<Path> files = Files.walk(tree)) {
                for (Path file : files.filter(Files::isRegularFile)
                        .filter(file -> !file.startsWith(tree.resolve(".git")))
                        .toList()) {
                    List<String> lines = Files.readString(file).lines().toList();
                    for (int i = 0; i < lines.size(); i++) {
                        int at = lines.get(i).toLowerCase(Locale.ROOT).indexOf(word);
                        if (at >= 0) {
                            found.add(tree.relativize(file) + ":" + (i + 1) + ":" + (at + 1) + ": " + lines.get(i));
                        }
                    }
                }
            }
            return found;
        }

        @Test
        void foldersAreNamedFromWhereOneStands() {
            assertThat(in("internal", "files", "--here", "--under", "ticket/").lines())
                    .containsExactlyInAnyOrder("ticket/ticket.go", "ticket/ticket_test.go");
            assertThat(in("internal", "files", "--here", "--under", "*_test.go").lines())
                    .isNotEmpty()
                    .allMatch(path -> path.endsWith("_test.go"))
                    .isNotEmpty();
        }

        @Test
        void theRepositoryIsRecognisedByItsFirstCommitToo() throws IOException {
            GitFolder.create(folder.resolve("any2"))
                    .git(
                            "-C",
                            tree.toString(),
                            "remote",
                            "set-url",
                            "origin",
                            "git@nowhere.quillhaven.example:other/name.git");
            assertThat(in("", "files", "--here", "go.mod").lines()).containsExactly("go.mod");
        }

        @Test
        void jsonNamesBoth() {
            assertThat(in("internal/ticket", "lines", "--here", "--format", "jsonl", "--limit", "1", "package ticket")
                            .out())
                    .contains("\"path\":\"internal/ticket/ticket.go\"")
                    .contains("\"local\":\"ticket.go\"");
        }

        @Test
        void elsewhereItSaysWhatIsMissing() throws IOException {
            Client.Result outside = in(
                    folder,
                    "",
                    Map.of("GIT_CEILING_DIRECTORIES", folder.getParent().toString()),
                    "lines",
                    "--here",
                    "x");
            assertThat(outside.status()).isEqualTo(2);
            assertThat(outside.err()).contains("--here works in a Git work tree");
            GitFolder other =
                    GitFolder.create(folder.resolve("other")).write("a", "x").commit("other");
            assertThat(in(other.path(), "", Map.of(), "lines", "--here", "x").err())
                    .contains("neither by its remotes nor by its first commit");
            assertThat(in("", "lines", "--here", "--repo", "tidewatch", "x").err())
                    .contains("Leave --repo out");
        }
    }

    @Nested
    class Lists {
        @Test
        void onlyListedFilesAreSearched() {
            Client.Result found = in(
                    tree,
                    "fare-gate/go.mod\ntidewatch/README.md\nfare-gate/nowhere.go\n",
                    Map.of(),
                    "lines",
                    "--files-from",
                    "-",
                    "--only",
                    "files",
                    "--regex",
                    ".");
            assertThat(found.lines()).containsExactly("fare-gate/go.mod", "tidewatch/README.md");
            assertThat(found.err()).contains("1 listed file not in the index");
            assertThat(in(
                                    tree,
                                    "go.mod\0internal/ticket/ticket.go\0",
                                    Map.of(),
                                    "lines",
                                    "--here",
                                    "--files-from",
                                    "-",
                                    "--only",
                                    "files",
                                    "--regex",
                                    ".")
                            .lines())
                    .containsExactly("go.mod", "internal/ticket/ticket.go");
        }

        @Test
        void longListsAreTaken() {
            StringBuilder list = new StringBuilder("fare-gate/go.mod\n");
            for (int i = 0; i < 9_000; i++) {
                list.append("fare-gate/some/rather/long/folder/that/is/not/there/file")
                        .append(i)
                        .append(".go\n");
            }
            Client.Result found = in(
                    tree, list.toString(), Map.of(), "lines", "--files-from", "-", "--only", "files", "--regex", ".");
            assertThat(found.lines()).containsExactly("fare-gate/go.mod");
            Client.Result tooLong = in(
                    tree,
                    list.toString() + list.toString().replace("file", "other"),
                    Map.of(),
                    "lines",
                    "--files-from",
                    "-",
                    "x");
            assertThat(tooLong.status()).isEqualTo(2);
            assertThat(tooLong.err()).contains("at most 10000");
        }

        @Test
        void anEmptyListIsNotTakenForAllFiles() {
            Client.Result found = in(tree, "\n\n", Map.of(), "lines", "--files-from", "-", "ticket");
            assertThat(found.status()).isEqualTo(1);
            assertThat(found.out()).isEmpty();
        }

        @Test
        void aPatternThatTheShellReplacedIsNoticed() {
            assertThat(in("internal/ticket", "lines", "--under", "ticket.go", "ticket_test.go")
                            .err())
                    .contains("the shell may have put them in place of a pattern");
            assertThat(in("internal/ticket", "lines", "--under", "*.go", "--limit", "1", "package")
                            .err())
                    .doesNotContain("shell");
        }
    }

    @Nested
    class Places {
        private static final String LOG = """
                [ERROR] /builds/7/berth-planner/src/main/java/quillhaven/berth/plan/BerthPlanner.java:[28,12] cannot find symbol
                \tat quillhaven.berth.plan.BerthPlanner.plan(BerthPlanner.java:30)
                  File "/srv/tidewatch/tidewatch/stations.py", line 12, in load
                unknown/thing.c:3:1: warning: at 12:30:00
                """;

        @Test
        void thatALogNamesAreListedForStepping() throws IOException {
            Path log = Files.writeString(folder.resolve("build.log"), LOG);
            Client.Result found = in(tree, "", Map.of(), "places", log.toString());
            assertThat(found.lines())
                    .satisfiesExactly(
                            line -> assertThat(line)
                                    .startsWith(
                                            "berth-planner/src/main/java/quillhaven/berth/plan/BerthPlanner.java:28:12: [ERROR]"),
                            line -> assertThat(line)
                                    .startsWith(
                                            "berth-planner/src/main/java/quillhaven/berth/plan/BerthPlanner.java:30:1: at "),
                            line -> assertThat(line).startsWith("tidewatch/tidewatch/stations.py:12:1: File "));
            assertThat(found.err()).contains("1 place in files that the index does not have");
            assertThat(in(tree, LOG, Map.of(), "places", "--all", "-").lines()).hasSize(4);
        }

        @Test
        void aTextWithoutAnySaysSo() {
            Client.Result none = in(tree, "all is well at 12:30:45\n", Map.of(), "places");
            assertThat(none.status()).isEqualTo(1);
            assertThat(none.err()).contains("the text names no places");
            assertThat(in(tree, "", Map.of(), "places").status()).isEqualTo(2);
        }
    }

    @Nested
    class Editors {
        private Map<String, String> editor(String name) throws IOException {
            Path program = folder.resolve(name);
            Files.writeString(
                    program, "#!/bin/sh\nfor word; do echo \"$word\"; done > '" + folder.resolve("opened") + "'\n");
            program.toFile().setExecutable(true);
            return Map.of(
                    "VISUAL",
                    program.toString(),
                    "ODDBEACON_CONFIG",
                    folder.resolve("client.properties").toString());
        }

        private List<String> opened() throws IOException {
            return Files.readAllLines(folder.resolve("opened"));
        }

        @Test
        void openWhatWasFoundAtItsLine() throws IOException {
            assertThat(in(tree, "", editor("my-editor"), "lines", "--here", "--open", "--word", "type Zone string")
                            .status())
                    .isZero();
            assertThat(opened())
                    .containsExactly(
                            "+13",
                            tree.toRealPath()
                                    .resolve("internal/ticket/ticket.go")
                                    .toString());
        }

        @Test
        void knowWorkTreesFromTheSettings() throws IOException {
            Map<String, String> environment = editor("my-editor");
            Client.Result unknown = in(folder, "", environment, "files", "--open", "--repo", "fare-gate", "go.mod");
            assertThat(unknown.status()).isEqualTo(2);
            assertThat(unknown.err())
                    .contains("No work tree of fare-gate is known.")
                    .contains("folder.fare-gate = /path/to/it");
            Files.writeString(
                    folder.resolve("client.properties"),
                    "folder.fare-gate = " + tree + "\neditor.form = FILE:LINE:COLUMN\n");
            assertThat(in(folder, "", environment, "files", "--open", "--repo", "fare-gate", "go.mod")
                            .status())
                    .isZero();
            assertThat(opened()).containsExactly(tree.resolve("go.mod") + ":1:1");
        }
    }

    @Test
    void browseFollowsTheKeysAndLeavesWithTheChosenLines() throws IOException, InterruptedException {
        Path out = folder.resolve("taken");
        Path screen = folder.resolve("screen");
        String command = "stty rows 30 cols 120; '" + Launched.HOME.resolve("oddbeacon")
                + "' browse --repo fare-gate > '" + out + "'";
        ProcessBuilder builder = new ProcessBuilder("script", "-qfec", command, screen.toString())
                .directory(tree.toFile())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("echo").toFile());
        Launched.environment(builder.environment());
        builder.environment().putAll(Map.of("ODDBEACON_URL", Demo.address(), "TERM", "xterm"));
        Process process = builder.start();
        try (OutputStream keys = process.getOutputStream()) {
            waitFor(screen, "Type what to look for.");
            press(keys, "type zone");
            waitFor(screen, "1 hit");
            press(keys, "\023"); // Ctrl-S: the scope
            waitFor(screen, "scope: ");
            press(keys, " --type go\023\t"); // and to files, of the same text
            waitFor(screen, "0 files");
            press(keys, "\025ticket"); // Ctrl-U, another text
            waitFor(screen, "2 files of 1 repository");
            press(keys, "\030\030\r"); // Ctrl-X twice, Enter
            assertThat(process.waitFor(20, TimeUnit.SECONDS)).isTrue();
        } finally {
            process.destroyForcibly();
        }
        assertThat(Files.readAllLines(out))
                .containsExactlyInAnyOrder(
                        "fare-gate/internal/ticket/ticket.go", "fare-gate/internal/ticket/ticket_test.go");
    }

    private static void press(OutputStream keys, String text) throws IOException {
        keys.write(text.getBytes(StandardCharsets.UTF_8));
        keys.flush();
    }

    private static void waitFor(Path screen, String text) throws IOException, InterruptedException {
        String seen = "";
        for (int i = 0; i < 200; i++) {
            seen = Files.exists(screen)
                    ? new String(Files.readAllBytes(screen), StandardCharsets.UTF_8)
                            .replaceAll("\033\\[[0-9;?]*[A-Za-z]", "")
                    : "";
            if (seen.contains(text)) {
                return;
            }
            Thread.sleep(100);
        }
        throw new AssertionError("\"" + text + "\" does not appear: " + seen);
    }

    @Test
    void browseWithoutATerminalSaysSo() {
        assertThat(in("", "browse").err()).contains("browse needs a terminal");
    }
}
