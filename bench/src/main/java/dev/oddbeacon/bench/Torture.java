package dev.oddbeacon.bench;

import dev.oddbeacon.api.LinesAnswer;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * Kills, damages and interrupts the service at random, for as long as wanted, and holds what it answers against what
 * the repositories hold: after each blow everything must be found again, no more and no less, within two minutes.
 */
final class Torture implements AutoCloseable {
    private static final int REPOSITORIES = 4;
    private static final Duration PATIENCE = Duration.ofMinutes(2);

    private final Path launcher;
    private final Path folder;
    private final Path data;
    private final Random random;
    private final int[] pushes = new int[REPOSITORIES];
    private final Map<String, Integer> blows = new TreeMap<>();
    private final List<String> wrong = new ArrayList<>();
    private Running service;

    private Torture(Path launcher, Path folder, long seed) throws IOException, InterruptedException {
        this.launcher = launcher;
        this.folder = folder;
        this.data = folder.resolve("service");
        this.random = new Random(seed);
        for (int repository = 0; repository < REPOSITORIES; repository++) {
            Files.createDirectories(path(repository));
            Command.git(path(repository), "init", "-q", "-b", "main");
            push(repository);
        }
        this.service = Running.start(launcher, data);
        for (int repository = 0; repository < REPOSITORIES; repository++) {
            service.add(name(repository), path(repository));
        }
    }

    /** @return whether nothing was wrong */
    static boolean run(Path launcher, Path folder, int minutes, long seed, Table table)
            throws IOException, InterruptedException {
        try (Torture torture = new Torture(launcher, folder, seed)) {
            torture.await();
            long end = System.nanoTime() + Duration.ofMinutes(minutes).toNanos();
            while (System.nanoTime() < end && torture.wrong.isEmpty()) {
                torture.blow();
                torture.await();
            }
            table.note("torture, seed " + seed, "%d minutes: %s", minutes, torture.blows);
            table.target(
                    "answers after a blow", "as the repositories are", torture.wrong.isEmpty(), "%s", torture.wrong);
            return torture.wrong.isEmpty();
        }
    }

    private Path path(int repository) {
        return folder.resolve("repository-" + repository);
    }

    private static String name(int repository) {
        return "t" + repository;
    }

    private void push(int repository) throws IOException, InterruptedException {
        pushes[repository]++;
        Files.writeString(
                path(repository).resolve("tide.txt"),
                "steady tide\n".repeat(200 + pushes[repository]) + "push " + pushes[repository] + " of " + repository
                        + " end\n");
        Command.commit(path(repository), "Push");
    }

    private void blow() throws IOException, InterruptedException {
        int kind = random.nextInt(8);
        String name = switch (kind) {
            case 0 -> "service killed";
            case 1 -> "launcher killed";
            case 2 -> "stopped";
            case 3 -> "MariaDB killed";
            case 4 -> "file of the index cut";
            case 5 -> "file of the index deleted";
            case 6 -> "locks left in a mirror";
            default -> "mirror zeroed";
        };
        blows.merge(name, 1, Integer::sum);
        for (int i = random.nextInt(4); i >= 0; i--) {
            int repository = random.nextInt(REPOSITORIES);
            push(repository);
            tryRefresh(repository);
        }
        Thread.sleep(random.nextInt(400));
        switch (kind) {
            case 0 -> kill("oddbeacon-server.jar");
            case 1 -> {
                service.kill();
                service = Running.start(launcher, data);
            }
            case 2 -> {
                service.close();
                service = Running.start(launcher, data);
            }
            case 3 -> kill("mariadbd");
            case 4 ->
                withFile("index", file -> {
                    try (RandomAccessFile open = new RandomAccessFile(file.toFile(), "rw")) {
                        open.setLength(open.length() / 2);
                    }
                });
            case 5 -> withFile("index", Files::delete);
            case 6 -> {
                try (Stream<Path> mirrors = Files.list(data.resolve("mirrors"))) {
                    for (Path mirror : mirrors.toList()) {
                        Files.writeString(mirror.resolve("refs/heads/main.lock"), "");
                        Files.writeString(mirror.resolve("packed-refs.lock"), "");
                    }
                }
            }
            default -> {
                Path mirror = any(data.resolve("mirrors"));
                Path main = mirror == null ? null : mirror.resolve("refs/heads/main");
                if (main != null && Files.exists(main)) {
                    Files.write(main, new byte[41]);
                }
            }
        }
        if (kind == 4 || kind == 5) {
            tryVerify();
        }
    }

    private interface Harm {
        void to(Path file) throws IOException;
    }

    private void withFile(String where, Harm harm) throws IOException {
        Path file = any(data.resolve(where));
        if (file != null) {
            try {
                harm.to(file);
            } catch (java.nio.file.NoSuchFileException e) {
                // it went by itself
            }
        }
    }

    /** @return null if there is none */
    private Path any(Path where) throws IOException {
        try (Stream<Path> files = Files.list(where)) {
            List<Path> all = files.sorted().toList();
            return all.isEmpty() ? null : all.get(random.nextInt(all.size()));
        }
    }

    private void kill(String program) {
        service.processes()
                .filter(process -> process.info().commandLine().orElse("").contains(program))
                .findFirst()
                .ifPresent(ProcessHandle::destroyForcibly);
    }

    private void tryRefresh(int repository) throws InterruptedException {
        try {
            service.refresh(name(repository));
        } catch (IOException e) {
            // it is down just now; await asks again
        }
    }

    private void tryVerify() throws InterruptedException {
        try {
            service.post("api/v1/status/verify", "");
        } catch (IOException e) {
            // as above
        }
    }

    /** Waits until everything is found as it is. */
    private void await() throws InterruptedException {
        long end = System.nanoTime() + PATIENCE.toNanos();
        String last = "nothing was answered";
        for (int round = 0; System.nanoTime() < end; round++) {
            last = missing();
            if (last.isEmpty()) {
                return;
            }
            if (round % 50 == 20) { // a refresh may have been asked for while nobody heard
                for (int repository = 0; repository < REPOSITORIES; repository++) {
                    tryRefresh(repository);
                }
            }
            Thread.sleep(100);
        }
        wrong.add(last);
    }

    /** What is not as it should be; empty if all is. */
    private String missing() throws InterruptedException {
        try {
            for (int repository = 0; repository < REPOSITORIES; repository++) {
                String scope = "&counts=exact&" + Running.parameter("repo", name(repository));
                LinesAnswer steady = service.search(Running.parameter("q", "steady tide") + scope);
                LinesAnswer push = service.search(
                        Running.parameter("q", "push " + pushes[repository] + " of " + repository + " end") + scope);
                boolean isWhole = steady.counts().hits() == 200 + pushes[repository]
                        && push.counts().hits() == 1
                        && push.index().complete();
                if (!isWhole) {
                    return name(repository) + ": " + steady.counts() + " of " + (200 + pushes[repository]) + ", "
                            + push.counts() + ", " + push.index();
                }
            }
            return "";
        } catch (IOException | RuntimeException e) {
            return e.toString();
        }
    }

    @Override
    public void close() {
        service.close();
    }
}
