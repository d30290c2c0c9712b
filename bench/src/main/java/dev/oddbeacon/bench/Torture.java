package dev.oddbeacon.bench;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer;
import java.io.File;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import java.util.stream.Stream;

/**
 * Kills, freezes, damages and interrupts the processes of a service at random, while its repositories change, and holds
 * what it answers against a scan of their files: after each blow everything must be found again, no more and no less,
 * within two minutes, and no file may be left that nobody knows.
 */
final class Torture implements AutoCloseable {
    private static final int REPOSITORIES = 4;
    private static final int MOST_REPOSITORIES = 12;
    private static final Duration PATIENCE = Duration.ofMinutes(2);
    private static final Duration FROZEN = Duration.ofSeconds(3);
    private static final Duration LONG_FROZEN = Duration.ofSeconds(14); // others take over
    private static final Duration DISK_FULL = Duration.ofSeconds(6);
    private static final int STARTS_KILLED = 4;
    private static final int MOST_MILLIS_OF_A_START = 9_000;
    private static final String DISK_SIZE = "size=1500m";
    private static final Map<String, String> SETTINGS = Map.of("ODDBEACON_FREEDISK", "1MB"); // so that it does fill up
    private static final Duration BETWEEN_REFRESHES = Duration.ofSeconds(5);
    private static final String LEFT_BEHIND = "which nothing refers to any more";
    /** What is done to the service. */
    private enum Blow {
        SERVICE_KILLED,
        LAUNCHER_KILLED,
        STOPPED,
        INDEXING_KILLED,
        INDEXING_FROZEN,
        INDEXING_STOPPED,
        MARIADB_KILLED,
        MARIADB_FROZEN,
        MARIADB_OF_YESTERDAY,
        INDEX_FILE_CUT,
        INDEX_FILE_DELETED,
        INDEX_FILE_FLIPPED,
        INDEX_FILES_EXCHANGED,
        DISK_FILLED,
        LOCKS_IN_MIRRORS,
        MIRROR_ZEROED,
        REPOSITORY_REWRITTEN,
        REPOSITORY_BROKEN,
        PURGED,
        REMOVED_AND_ADDED,
        LARGE_ADDED_ANEW,
        ANOTHER_ADDED;

        private String inWords() {
            return name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }
    }

    private final Path launcher;
    private final Path folder;
    private final Path data;
    private final Random random;
    private final Victims victims;
    private final boolean hasDisk; // of its own, in memory
    private final Map<Blow, Integer> blows = new TreeMap<>();
    private final List<Double> answering = new ArrayList<>(); // seconds until it does again
    private final List<Double> whole = new ArrayList<>(); // seconds until all answers are right again
    private final List<String> wrong = new ArrayList<>();
    private Running service;
    private Process indexing;
    private long logged; // bytes of the service's log that were looked at

    /** @param isLong whether there is time for a repository that is read in parts, and for several first starts */
    private Torture(Path launcher, Path folder, long seed, boolean isLong) throws IOException, InterruptedException {
        this.launcher = launcher;
        this.folder = folder;
        this.data = folder.resolve("service");
        this.random = new Random(seed);
        this.victims = new Victims(folder, random);
        Files.createDirectories(data);
        this.hasDisk =
                tried(() -> Command.run(folder, "mount", "-t", "tmpfs", "-o", DISK_SIZE, "tmpfs", data.toString()));
        killWhileTablesAreMade(isLong ? STARTS_KILLED : 1);
        for (int repository = 0; repository < REPOSITORIES; repository++) {
            victims.add();
        }
        if (isLong) {
            victims.addLarge();
        }
        start();
        for (String name : victims.names()) {
            service.add(name, victims.path(name));
        }
    }

    /** @return whether nothing was wrong */
    static boolean run(Path launcher, Path folder, int minutes, long seed, Table table)
            throws IOException, InterruptedException {
        System.out.println("torture, seed " + seed);
        try (Torture torture = new Torture(launcher, folder, seed, minutes > 1)) {
            torture.await();
            torture.answering.clear();
            torture.whole.clear();
            long end = System.nanoTime() + Duration.ofMinutes(minutes).toNanos();
            while (System.nanoTime() < end && torture.wrong.isEmpty()) {
                torture.round();
            }
            torture.report(minutes, seed, table);
            return torture.wrong.isEmpty();
        }
    }

    private void report(int minutes, long seed, Table table) {
        int rounds = blows.values().stream().mapToInt(Integer::intValue).sum();
        table.note("torture, seed " + seed, "%d blows in %d minutes", rounds, minutes);
        blows.forEach((blow, count) -> table.note(blow.inWords(), "%d", count));
        table.note("answers again after", "median %.1f s, most %.1f s", median(answering), most(answering));
        table.note("all answers right again after", "median %.1f s, most %.1f s", median(whole), most(whole));
        table.target("answers after a blow", "as a scan finds", wrong.isEmpty(), "%s", wrong);
    }

    private static double median(List<Double> seconds) {
        return seconds.isEmpty() ? 0 : seconds.stream().sorted().toList().get(seconds.size() / 2);
    }

    private static double most(List<Double> seconds) {
        return seconds.stream().mapToDouble(Double::doubleValue).max().orElse(0);
    }

    private void start() throws IOException, InterruptedException {
        service = Running.start(launcher, data, SETTINGS);
        if (indexing == null || !indexing.isAlive()) {
            startIndexing();
        }
    }

    /** The first start makes all tables; it is begun and killed with all its processes a few times. */
    private void killWhileTablesAreMade(int times) throws IOException, InterruptedException {
        for (int i = 0; i < times; i++) {
            Process begun = begin("--port", "0");
            Thread.sleep(random.nextInt(MOST_MILLIS_OF_A_START));
            List<ProcessHandle> started = Stream.concat(Stream.of(begun.toHandle()), begun.descendants())
                    .toList();
            started.forEach(ProcessHandle::destroyForcibly);
            started.forEach(process -> process.onExit().join());
        }
    }

    private void startIndexing() throws IOException {
        indexing = begin("--duty", "indexing");
    }

    private Process begin(String... options) throws IOException {
        List<String> command = new ArrayList<>(List.of("sh", launcher.toString(), "serve", "--data", data.toString()));
        command.addAll(List.of(options));
        ProcessBuilder builder = new ProcessBuilder(command)
                .redirectOutput(ProcessBuilder.Redirect.INHERIT)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .redirectInput(new File("/dev/null"));
        builder.environment().put("ODDBEACON_PREBUILT", "yes");
        builder.environment().putAll(SETTINGS);
        return builder.start();
    }

    private void stopIndexing() {
        List<ProcessHandle> started = Stream.concat(Stream.of(indexing.toHandle()), indexing.descendants())
                .toList();
        indexing.destroy();
        started.forEach(process -> process.onExit()
                .completeOnTimeout(process, 60, TimeUnit.SECONDS)
                .join());
    }

    private void round() throws IOException, InterruptedException {
        Blow blow;
        do {
            blow = Blow.values()[random.nextInt(Blow.values().length)];
        } while (!isPossible(blow));
        blows.merge(blow, 1, Integer::sum);
        System.out.println(blow.inWords());
        for (int i = random.nextInt(4); i >= 0; i--) {
            String name = victims.any();
            victims.push(name);
            tried(() -> service.refresh(name));
        }
        Thread.sleep(random.nextInt(1_500));
        Optional<String> broken = strike(blow);
        for (int i = random.nextInt(2); i > 0; i--) {
            String name = victims.any();
            if (broken.stream().noneMatch(name::equals)) {
                victims.push(name);
            }
        }
        if (broken.isPresent()) {
            tried(() -> service.refresh(broken.get()));
            Thread.sleep(random.nextInt(2_000));
            victims.mend(broken.get());
        }
        await();
    }

    private boolean isPossible(Blow blow) {
        return switch (blow) {
            case MARIADB_OF_YESTERDAY -> Files.exists(folder.resolve("yesterday"));
            case LARGE_ADDED_ANEW -> victims.names().contains(Victims.LARGE);
            case DISK_FILLED -> hasDisk;
            case ANOTHER_ADDED -> victims.names().size() < MOST_REPOSITORIES;
            default -> true;
        };
    }

    /** @return a repository that must be mended */
    private Optional<String> strike(Blow blow) throws IOException, InterruptedException {
        switch (blow) {
            case SERVICE_KILLED -> kill(process -> isService(process));
            case LAUNCHER_KILLED -> {
                service.kill();
                start();
            }
            case STOPPED -> {
                stopAll();
                copy(data.resolve("mariadb"), folder.resolve("yesterday"));
                logged = Files.size(data.resolve("log/service.log"));
                start();
                String log = Files.readString(data.resolve("log/service.log")).substring((int) logged);
                if (log.contains(LEFT_BEHIND)) {
                    wrong.add("after a stop in order, files were left: " + log);
                }
            }
            case INDEXING_KILLED -> indexers().forEach(ProcessHandle::destroyForcibly);
            case INDEXING_FROZEN -> frozen(indexers().toList(), LONG_FROZEN);
            case INDEXING_STOPPED -> {
                stopIndexing();
                startIndexing();
            }
            case MARIADB_KILLED -> kill(process -> is(process, "mariadbd"));
            case MARIADB_FROZEN ->
                frozen(
                        service.processes()
                                .filter(process -> is(process, "mariadbd"))
                                .toList(),
                        FROZEN);
            case MARIADB_OF_YESTERDAY -> {
                stopAll();
                Command.run(folder, "rm", "-rf", data.resolve("mariadb").toString());
                copy(folder.resolve("yesterday"), data.resolve("mariadb"));
                start();
                for (String name : victims.names()) { // those that came after it are not known any more
                    if (!service.isRegistered(name)) {
                        service.add(name, victims.path(name));
                    }
                }
            }
            case INDEX_FILE_CUT ->
                withFile(file -> {
                    try (RandomAccessFile open = new RandomAccessFile(file.toFile(), "rw")) {
                        open.setLength(open.length() / 2);
                    }
                });
            case INDEX_FILE_DELETED -> withFile(Files::delete);
            case INDEX_FILE_FLIPPED ->
                withFile(file -> {
                    try (RandomAccessFile open = new RandomAccessFile(file.toFile(), "rw")) {
                        long at = (long) (random.nextDouble() * open.length());
                        open.seek(at);
                        int value = open.read();
                        open.seek(at);
                        open.write(value ^ 1 << random.nextInt(8));
                    }
                });
            case INDEX_FILES_EXCHANGED ->
                withFile(file -> {
                    Optional<Path> other = any(data.resolve("index"))
                            .filter(second ->
                                    !second.equals(file) && suffix(second).equals(suffix(file)));
                    if (other.isPresent()) {
                        Path between = folder.resolve("between");
                        Files.move(file, between, StandardCopyOption.REPLACE_EXISTING);
                        Files.move(other.get(), file);
                        Files.move(between, other.get());
                    }
                });
            case DISK_FILLED -> {
                Path ballast = data.resolve("ballast");
                tried(() -> fill(ballast));
                String name = victims.any();
                victims.push(name);
                tried(() -> service.refresh(name));
                Thread.sleep(DISK_FULL);
                Files.deleteIfExists(ballast);
            }
            case LOCKS_IN_MIRRORS -> {
                try (Stream<Path> mirrors = Files.list(data.resolve("mirrors"))) {
                    for (Path mirror : mirrors.filter(Files::isDirectory).toList()) {
                        Files.createDirectories(mirror.resolve("refs/heads"));
                        Files.writeString(mirror.resolve("refs/heads/main.lock"), "");
                        Files.writeString(mirror.resolve("packed-refs.lock"), "");
                    }
                }
            }
            case MIRROR_ZEROED -> {
                Optional<Path> main = any(data.resolve("mirrors")).map(mirror -> mirror.resolve("refs/heads/main"));
                if (main.isPresent() && Files.exists(main.get())) {
                    Files.write(main.get(), new byte[41]);
                }
            }
            case REPOSITORY_REWRITTEN -> {
                String name = victims.any();
                victims.rewrite(name);
                tried(() -> service.refresh(name));
            }
            case REPOSITORY_BROKEN -> {
                String name = victims.any();
                victims.breakUp(name);
                return Optional.of(name);
            }
            case PURGED -> {
                String name = victims.any();
                victims.rewrite(name);
                tried(() -> service.post("api/v1/repositories/" + name + "/purge", ""));
            }
            case REMOVED_AND_ADDED -> addAnew(victims.any());
            case LARGE_ADDED_ANEW -> {
                addAnew(Victims.LARGE);
                Thread.sleep(random.nextInt(6_000));
                kill(process -> random.nextBoolean() ? isService(process) : is(process, "git"));
            }
            case ANOTHER_ADDED -> {
                String name = victims.add();
                tried(() -> service.add(name, victims.path(name)));
            }
        }
        switch (blow) {
            case INDEX_FILE_CUT, INDEX_FILE_DELETED, INDEX_FILE_FLIPPED, INDEX_FILES_EXCHANGED ->
                tried(() -> service.post("api/v1/status/verify", ""));
            default -> {}
        }
        return Optional.empty();
    }

    private static void fill(Path file) throws IOException {
        byte[] zeros = new byte[1 << 16];
        try (OutputStream out = Files.newOutputStream(file)) {
            while (true) { // until there is no room
                out.write(zeros);
            }
        }
    }

    private void addAnew(String name) throws InterruptedException {
        tried(() -> service.remove(name));
        tried(() -> service.add(name, victims.path(name)));
    }

    private void stopAll() {
        stopIndexing();
        service.close();
    }

    private void copy(Path from, Path to) throws IOException, InterruptedException {
        Command.run(folder, "rm", "-rf", to.toString());
        Command.run(folder, "cp", "-a", from.toString(), to.toString());
    }

    private static String suffix(Path file) {
        String name = file.getFileName().toString();
        return name.substring(name.lastIndexOf('.') + 1);
    }

    private static boolean is(ProcessHandle process, String program) {
        return process.info().commandLine().orElse("").contains(program);
    }

    private static boolean isService(ProcessHandle process) {
        return is(process, "oddbeacon-server.jar") && is(process, "--oddbeacon.port");
    }

    private Stream<ProcessHandle> indexers() {
        return indexing.descendants().filter(process -> is(process, "oddbeacon.duties=indexing"));
    }

    private void kill(Predicate<ProcessHandle> which) {
        service.processes().filter(which).findFirst().ifPresent(ProcessHandle::destroyForcibly);
    }

    private void frozen(List<ProcessHandle> processes, Duration time) throws IOException, InterruptedException {
        for (ProcessHandle process : processes) {
            Command.run(folder, "kill", "-STOP", String.valueOf(process.pid()));
        }
        Thread.sleep(time);
        for (ProcessHandle process : processes) {
            Command.run(folder, "kill", "-CONT", String.valueOf(process.pid()));
        }
    }

    private interface Harm {
        void to(Path file) throws IOException;
    }

    private void withFile(Harm harm) throws IOException {
        Optional<Path> file = any(data.resolve("index"));
        if (file.isPresent()) {
            try {
                harm.to(file.get());
            } catch (NoSuchFileException e) {
                // it went by itself
            }
        }
    }

    private Optional<Path> any(Path where) throws IOException {
        try (Stream<Path> files = Files.list(where)) {
            List<Path> all = files.sorted().toList();
            return all.isEmpty() ? Optional.empty() : Optional.of(all.get(random.nextInt(all.size())));
        }
    }

    private interface Request {
        void send() throws IOException, InterruptedException;
    }

    /** It may be down just now. */
    private static boolean tried(Request request) throws InterruptedException {
        try {
            request.send();
            return true;
        } catch (IOException e) {
            return false;
        }
    }

    /** Waits until everything is found as it is. */
    private void await() throws IOException, InterruptedException {
        long start = System.nanoTime();
        long refreshed = start;
        boolean answered = false;
        Optional<String> missing = Optional.of("nothing was answered");
        while (System.nanoTime() - start < PATIENCE.toNanos()) {
            if (!answered && tried(() -> service.search(Running.parameter("q", "avocet") + "&limit=1"))) {
                answered = true;
                answering.add((System.nanoTime() - start) / 1e9);
            }
            missing = missing();
            if (missing.isEmpty()) {
                whole.add((System.nanoTime() - start) / 1e9);
                return;
            }
            if (System.nanoTime() - refreshed > BETWEEN_REFRESHES.toNanos()) { // asked for while nobody heard
                refreshed = System.nanoTime();
                for (String name : victims.names()) {
                    tried(() -> {
                        if (service.isRegistered(name)) {
                            service.refresh(name);
                        } else {
                            service.add(name, victims.path(name));
                        }
                    });
                }
            }
            Thread.sleep(100);
        }
        wrong.add(missing.get());
    }

    /** What is not as it should be. */
    private Optional<String> missing() throws InterruptedException {
        try {
            for (String name : victims.names()) {
                Map<String, Integer> scan = victims.scan(name);
                String scope = "&counts=exact&limit=1&" + Running.parameter("repo", name);
                for (String word : Victims.WORDS) {
                    LinesAnswer answer = service.search(Running.parameter("q", word) + scope);
                    if (answer.counts().hits() != scan.get(word)
                            || !answer.index().complete()) {
                        return Optional.of(name + ", " + word + ": " + answer.counts() + " of " + scan.get(word) + ", "
                                + answer.index());
                    }
                }
                CommitsAnswer commits = service.commits(Running.parameter("q", "Push") + scope);
                if (commits.counts().commits() != scan.get("commits")
                        || !commits.index().complete()) {
                    return Optional.of(name + ": " + commits.counts() + " of " + scan.get("commits") + " commits, "
                            + commits.index());
                }
            }
            return Optional.empty();
        } catch (IOException | RuntimeException e) {
            return Optional.of(e.toString());
        }
    }

    @Override
    public void close() throws IOException {
        stopAll();
        try {
            copy(data.resolve("log"), folder.resolve("log"));
            if (hasDisk) {
                Command.run(folder, "umount", "--lazy", data.toString());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
