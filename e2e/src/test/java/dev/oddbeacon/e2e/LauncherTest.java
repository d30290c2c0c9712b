package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class LauncherTest {
    private static final int LARGE_FILES = 200;

    @TempDir
    Path folder;

    @Test
    void theDemoSaysWhereItIsAndWhatToTry() throws IOException {
        String output = Demo.get().output();
        assertThat(output).contains("Ready: " + Demo.address() + "/").contains("berth-planner  120 files");
        assertThat(output.lines().filter(line -> line.startsWith("  ./oddbeacon ")))
                .hasSize(3);
    }

    @Test
    void aDataFolderInUseIsRefused() throws Exception {
        try (Launched second = Launched.begin("serve", Demo.get().data(), "--port", "0")) {
            assertThat(second.exitStatus()).isEqualTo(3);
            assertThat(second.output())
                    .startsWith("oddbeacon: the data folder")
                    .contains("is in use by a running service")
                    .hasLineCount(1);
        }
        assertThat(Http.get(Demo.address(), "/api/v1/status").status())
                .as("the first goes on")
                .isEqualTo(200);
    }

    @Test
    void aTakenPortIsSaidAndNothingIsLeftRunning() throws Exception {
        try (ServerSocket taken = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
                Launched launched = Launched.begin("serve", folder, "--port", String.valueOf(taken.getLocalPort()))) {
            assertThat(launched.exitStatus()).isEqualTo(3);
            assertThat(launched.output())
                    .contains("oddbeacon: Port " + taken.getLocalPort() + " is taken")
                    .contains("--port 0");
        }
        assertThat(ProcessHandle.allProcesses()
                        .filter(process ->
                                process.info().commandLine().orElse("").contains(folder.toString())))
                .isEmpty();
    }

    @Test
    void wrongOptionsAreSaid() throws Exception {
        try (Launched launched = Launched.begin("serve", folder, "--port", "harbour")) {
            assertThat(launched.exitStatus()).isEqualTo(2);
            assertThat(launched.output()).contains("--port takes a number");
        }
    }

    @ParameterizedTest
    @CsvSource({
        "test --help, 0, every test",
        "test quickly, 2, test takes no quickly",
        "bench --help, 0, the benchmark",
        "bench soon, 2, 'bench takes options, not soon'",
        "demo --loud, 2, --loud is not an option of demo",
        "serve --help, 0, the service with your own repositories"
    })
    void wordsThatItDoesNotKnowAreExplainedAndNothingIsInstalled(String words, int status, String said)
            throws Exception {
        Process process = emptySystem(words, Map.of());
        assertThat(process.waitFor()).isEqualTo(status);
        assertThat(new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .contains(said)
                .doesNotContain("Installing")
                .doesNotContain("JDK 25 or later: install it");
    }

    @Test
    void aMissingJdkIsNamed() throws Exception {
        Process process = emptySystem("serve --data " + folder.resolve("data"), Map.of());
        assertThat(process.waitFor()).isEqualTo(3);
        assertThat(new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8))
                .contains("JDK 25 or later: install it")
                .hasLineCount(2);
    }

    /** The launcher where no JDK is found: in a copy of it that looks in an empty folder. */
    private Process emptySystem(String command, Map<String, String> environment) throws IOException {
        Path launcher = Files.writeString(
                folder.resolve("oddbeacon"),
                Files.readString(Launched.HOME.resolve("oddbeacon")).replace("/usr/lib/jvm/", folder + "/none/"));
        Files.createDirectories(folder.resolve("server/target"));
        Files.createFile(folder.resolve("server/target/oddbeacon-server.jar"));
        List<String> words = new ArrayList<>(List.of("sh", launcher.toString()));
        words.addAll(List.of(command.split(" ")));
        ProcessBuilder builder =
                new ProcessBuilder(words).redirectErrorStream(true).redirectInput(new File("/dev/null"));
        builder.environment().remove("JAVA_HOME");
        builder.environment().putAll(environment);
        return builder.start();
    }

    @Test
    void aSecondStartKeepsEverythingAndAKillLosesNothing() throws Exception {
        GitFolder git = GitFolder.create(folder.resolve("large"));
        for (int i = 0; i < LARGE_FILES; i++) {
            git.write(
                    "d" + i % 20 + "/f" + i + ".txt",
                    ("line " + i + " of a puffin colony, " + "ä".repeat(90) + "\n").repeat(600));
        }
        git.commit("many");
        Path data = folder.resolve("data");
        try (Launched first = Launched.start("serve", data, "--port", "0")) {
            assertThat(Client.run(
                                    first.address(),
                                    "repos",
                                    "add",
                                    "small",
                                    GitFolder.create(folder.resolve("small"))
                                            .write("a", "one puffin\n")
                                            .commit("a")
                                            .path()
                                            .toString(),
                                    "--wait")
                            .status())
                    .isZero();
            assertThat(Client.run(
                                    first.address(),
                                    "repos",
                                    "add",
                                    "large",
                                    git.path().toString())
                            .status())
                    .isZero();
            Path index = data.resolve("index");
            while (!"indexing"
                            .equals(Http.get(first.address(), "/api/v1/repositories/large")
                                    .text("state"))
                    || !hasUnfinished(index)) {
                assertThat(Http.get(first.address(), "/api/v1/repositories/large")
                                .text("state"))
                        .isNotEqualTo("ready");
                Thread.sleep(5);
            }
            assertThat(Client.run(first.address(), "lines", "one puffin").err()).contains("not complete: 1 of 2");
            List<ProcessHandle> services = first.children("oddbeacon-server.jar");
            assertThat(services).isNotEmpty();
            first.kill(); // or it would start the service again
            services.forEach(ProcessHandle::destroyForcibly);
            services.forEach(service -> service.onExit().join());
        }
        damageASegment(data.resolve("index"));
        try (Launched second = Launched.start("serve", data, "--port", "0")) {
            String address = second.address();
            for (String name : List.of("small", "large")) {
                while (!"ready"
                        .equals(Http.get(address, "/api/v1/repositories/" + name)
                                .text("state"))) {
                    Thread.sleep(100);
                }
            }
            assertThat(Client.run(address, "lines", "one puffin").lines())
                    .as("what was damaged is built anew")
                    .containsExactly("small/a:1:1: one puffin");
            assertThat(Files.readString(data.resolve("log/service.log"))).contains("cannot be used: ");
            Http.Answer all = Http.get(address, "/api/v1/search/lines", "q", "puffin colony", "counts", "exact");
            assertThat(all.json().path("counts").path("hits").asInt()).isEqualTo(LARGE_FILES * 600);
            HistoryTest.awaitPast(address);
            assertThat(hasUnfinished(data.resolve("index")))
                    .as("a stray is left")
                    .isFalse();
            losesItsDatabaseForAMoment(second);
        }
    }

    private static boolean hasUnfinished(Path index) throws IOException {
        try (Stream<Path> files = Files.list(index)) {
            return files.anyMatch(file -> file.toString().endsWith(".unfinished"));
        }
    }

    @Test
    void aBackupOfARunningServiceIsRestoredIntoAnEmptyFolder() throws Exception {
        Path data = folder.resolve("data");
        Path backups = folder.resolve("backups");
        try (Launched service = Launched.start("serve", data, "--port", "0")) {
            Path repository = GitFolder.create(folder.resolve("small"))
                    .write("a", "one puffin\n")
                    .commit("a")
                    .path();
            assertThat(Client.run(service.address(), "repos", "add", "small", repository.toString(), "--wait")
                            .status())
                    .isZero();
            try (Launched backup = Launched.begin("backup", data, backups.toString())) {
                assertThat(backup.exitStatus()).as(backup.output()).isZero();
                assertThat(backup.output()).contains("Written: " + backups).contains("  1 repository, 0 accounts");
            }
            assertThat(Client.run(service.address(), "lines", "one puffin").status())
                    .isZero();
            try (Launched restore =
                    Launched.begin("restore", data, newest(backups).toString())) {
                assertThat(restore.exitStatus()).isEqualTo(3);
                assertThat(restore.output()).contains("is not empty").contains("Nothing was changed");
            }
        }
        try (Launched again = Launched.begin("backup", data, backups.toString())) {
            assertThat(again.exitStatus()).as("of a service that is stopped").isZero();
        }
        Path other = folder.resolve("other");
        try (Launched restore = Launched.begin("restore", other, newest(backups).toString())) {
            assertThat(restore.exitStatus()).as(restore.output()).isZero();
            assertThat(restore.output())
                    .contains("1 repository, 0 accounts")
                    .contains("./oddbeacon serve --data " + other)
                    .hasLineCount(4);
        }
        try (Launched service = Launched.start("serve", other, "--port", "0")) {
            while (!"ready"
                    .equals(Http.get(service.address(), "/api/v1/repositories/small")
                            .text("state"))) {
                Thread.sleep(100);
            }
            assertThat(Client.run(service.address(), "lines", "one puffin").lines())
                    .containsExactly("small/a:1:1: one puffin");
        }
    }

    @Test
    void aBackupThatCannotBeMadeSaysWhy() throws Exception {
        try (Launched backup = Launched.begin("backup", folder.resolve("none"), folder.toString())) {
            assertThat(backup.exitStatus()).isEqualTo(3);
            assertThat(backup.output()).contains("there is no data folder").hasLineCount(1);
        }
        try (Launched restore = Launched.begin("restore", folder.resolve("none"), folder.toString())) {
            assertThat(restore.exitStatus()).isEqualTo(3);
            assertThat(restore.output()).contains("is no backup").contains("Nothing was changed");
        }
        assertThat(folder.resolve("none")).doesNotExist();
    }

    private static Path newest(Path backups) throws IOException {
        try (Stream<Path> all = Files.list(backups)) {
            return all.max(Comparator.naturalOrder()).orElseThrow();
        }
    }

    /** Of the small repository: it was indexed before the kill. */
    private static void damageASegment(Path index) throws IOException {
        try (Stream<Path> files = Files.list(index)) {
            Path segment = files.filter(file -> file.toString().endsWith(".segment"))
                    .min(Comparator.comparingLong(file -> file.toFile().length()))
                    .orElseThrow();
            byte[] bytes = Files.readAllBytes(segment);
            bytes[20] ^= 1;
            Files.write(segment, bytes);
        }
    }

    private static void losesItsDatabaseForAMoment(Launched launched) throws Exception {
        String address = launched.address();
        launched.children("mariadbd").forEach(ProcessHandle::destroyForcibly);
        assertThat(Http.get(address, "/api/v1/search/lines", "q", "one puffin")
                        .json()
                        .path("counts")
                        .path("hits")
                        .asInt())
                .isEqualTo(1);
        assertThat(Http.get(address, "/api/v1/repositories").json().size()).isEqualTo(2);
        long deadline = System.nanoTime() + 40_000_000_000L;
        while (Http.post(address, "/api/v1/repositories/small/refresh", "").status() != 202) {
            assertThat(System.nanoTime()).as("MariaDB is started again").isLessThan(deadline);
            Thread.sleep(200);
        }
        assertThat(launched.output()).contains("MariaDB has stopped by itself; starting it again");
        assertThat(URI.create(launched.address()).getPort()).isPositive();
    }

    @Test
    void smallSegmentsMergeAndADamagedFileIsNamedAndRebuilt() throws Exception {
        Path data = folder.resolve("data");
        GitFolder git = GitFolder.create(folder.resolve("growing"));
        try (Launched launched = Launched.start("serve", data, "--port", "0")) {
            git.write("f0", "puffin 0\n").commit("0");
            assertThat(Client.run(
                                    launched.address(),
                                    "repos",
                                    "add",
                                    "growing",
                                    git.path().toString(),
                                    "--wait")
                            .status())
                    .isZero();
            for (int i = 1; i < 12; i++) {
                git.write("f" + i, "puffin " + i + "\n").commit("next");
                assertThat(Client.run(launched.address(), "repos", "refresh", "growing", "--wait")
                                .status())
                        .isZero();
            }
            assertThat(Client.run(launched.address(), "lines", "--only", "counts", "puffin")
                            .out())
                    .contains("12 hits in 12 files");
            assertThat(segments(data)).hasSizeLessThan(8);

            Path victim = segments(data).getFirst();
            byte[] bytes = Files.readAllBytes(victim);
            bytes[460] ^= 1; // in the text, which is not read when the file is opened
            try (var channel = java.nio.channels.FileChannel.open(victim, java.nio.file.StandardOpenOption.WRITE)) {
                channel.write(java.nio.ByteBuffer.wrap(bytes));
            }
            Client.Result verified = Client.run(launched.address(), "status", "--verify");
            assertThat(verified.status()).isEqualTo(3);
            assertThat(verified.err()).contains("damaged: " + victim.getFileName());
            while (!Http.get(launched.address(), "/api/v1/repositories/growing")
                    .text("state")
                    .equals("ready")) {
                Thread.sleep(50);
            }
            assertThat(Client.run(launched.address(), "status", "--verify").out())
                    .contains("are as they were written");
            assertThat(Client.run(launched.address(), "lines", "--only", "counts", "puffin")
                            .out())
                    .contains("12 hits in 12 files");
        }
    }

    private static List<Path> segments(Path data) throws IOException {
        try (var files = Files.list(data.resolve("index"))) {
            return files.filter(file -> file.toString().endsWith(".segment")).toList();
        }
    }

    @Test
    void interruptingItStopsEverything() throws Exception {
        Launched launched = Launched.start("serve", folder.resolve("data"), "--port", "0");
        List<ProcessHandle> started = new ArrayList<>(launched.children("oddbeacon-server.jar"));
        started.addAll(launched.children("mariadbd"));
        assertThat(started).hasSize(2);
        launched.interrupt();
        launched.interrupt(); // impatiently
        launched.close();
        assertThat(launched.exitStatus()).isZero();
        assertThat(started).noneMatch(ProcessHandle::isAlive);
        assertThat(folder.resolve("data/address")).doesNotExist();
    }

    private static void await(BooleanSupplier condition) throws InterruptedException {
        long deadline = System.nanoTime() + Duration.ofSeconds(90).toNanos();
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).isLessThan(deadline);
            Thread.sleep(100);
        }
    }

    private static boolean answers(Launched launched) {
        try {
            return Http.get(launched.address(), "/api/v1/status").status() == 200;
        } catch (IOException | RuntimeException e) {
            return false;
        }
    }

    @Test
    void aServiceThatEndsByItselfIsStartedAgainAndSaysSo() throws Exception {
        Path data = folder.resolve("data");
        try (Launched launched = Launched.start("serve", data, "--port", "0")) {
            String address = launched.address();
            launched.children("oddbeacon-server.jar").forEach(ProcessHandle::destroyForcibly);
            await(() -> !answers(launched));
            await(() -> answers(launched));
            assertThat(launched.address()).as("the same one").isEqualTo(address);
            assertThat(Client.run(address, "status").err()).contains("The service ended by itself");
            assertThat(Files.getPosixFilePermissions(data))
                    .as("its owner's alone")
                    .hasSize(3);
        }
    }

    @Test
    void whatALauncherThatWasKilledLeavesEndsOrIsTakenOver() throws Exception {
        Path data = folder.resolve("data");
        Launched first = Launched.start("serve", data, "--port", "0");
        List<ProcessHandle> left = new ArrayList<>(first.children("oddbeacon-server.jar"));
        left.addAll(first.children("mariadbd"));
        assertThat(left).hasSize(2);
        first.kill();
        try (Launched second = Launched.start("serve", data, "--port", "0")) {
            assertThat(answers(second)).isTrue();
            assertThat(left).noneMatch(ProcessHandle::isAlive);
        }
    }

    @Test
    void aDataFolderThatAShellCouldMisreadIsRefused() throws Exception {
        try (Launched launched = Launched.begin("serve", folder.resolve("it's"), "--port", "0")) {
            assertThat(launched.exitStatus()).isEqualTo(2);
            assertThat(launched.output()).contains("--data cannot take a path with quotes");
        }
        assertThat(folder.resolve("it's")).doesNotExist();
    }
}
