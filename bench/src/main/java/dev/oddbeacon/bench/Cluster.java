package dev.oddbeacon.bench;

import dev.oddbeacon.api.Machines;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;

/**
 * Whether several machines answer as one does, whichever of them is asked for which page, and what it costs: the demo as
 * one service, and beside it as clusters of several sizes, all of them on this machine.
 */
final class Cluster {
    private static final List<Integer> SIZES = List.of(2, 3, 5);
    private static final int SHARING = 3; // machines, of which it is measured what sharing costs
    private static final int MOST_PAGES = 4;
    private static final int WARM = 600; // searches of each machine, which compiles itself as it goes
    private static final int TIMED = 300;
    private static final double MOST_MORE = 3; // ms of a search
    private static final String WHAT_DIFFERS = "\"(tookMillis|millis)\":[0-9.E-]+|\"next\":\"[^\"]*\"";

    /** Every search for lines is shared, however short. */
    private static final Map<String, String> SHARED_AT_ONCE = Map.of("ODDBEACON_CLUSTER_SHAREAFTER", "1ns");

    private final Running alone;
    private final List<String> machines; // addresses
    private final boolean shares; // every search
    private final Questions questions;
    private final Random random = new Random(20_261_202);
    private final Table table;

    private Cluster(Running alone, List<String> machines, boolean shares, Questions questions, Table table) {
        this.alone = alone;
        this.machines = machines;
        this.shares = shares;
        this.questions = questions;
        this.table = table;
    }

    /** @return whether all answers were equal */
    static boolean measure(Path launcher, Path folder, int searches, Table table)
            throws IOException, InterruptedException {
        Command.run(folder.getParent(), "rm", "-rf", folder.toString());
        boolean equal = true;
        try (Running alone = Running.startDemo(launcher, folder.resolve("alone"), 1, Map.of())) {
            Questions questions = new Questions(new Words(code(alone.data().resolve("demo"), folder.resolve("code"))));
            for (int size : SIZES) {
                for (boolean shares : new boolean[] {false, true}) {
                    Path data = folder.resolve("of-" + size + (shares ? "-sharing" : ""));
                    try (Running first = Running.startDemo(launcher, data, size, shares ? SHARED_AT_ONCE : Map.of())) {
                        Cluster cluster = new Cluster(alone, addresses(first, size), shares, questions, table);
                        cluster.awaitAll(first);
                        equal &= cluster.answersAlike(searches / SIZES.size() / 2);
                        if (!shares || size == SHARING) {
                            cluster.cost();
                        }
                    }
                }
            }
        }
        return equal;
    }

    /** Work trees of the demo's repositories, to draw words from. */
    private static Path code(Path repositories, Path folder) throws IOException, InterruptedException {
        Files.createDirectories(folder);
        try (Stream<Path> all = Files.list(repositories)) {
            for (Path repository : all.filter(path -> path.toString().endsWith(".git"))
                    .sorted()
                    .toList()) {
                Command.git(folder, "clone", "-q", repository.toString());
            }
        }
        return folder;
    }

    private static List<String> addresses(Running first, int size) throws IOException, InterruptedException {
        List<String> addresses = new ArrayList<>(List.of(first.address().toString()));
        for (int machine = 2; machine <= size; machine++) {
            Path address = first.data().resolve("machines/pier-" + machine + "/address");
            while (!Files.exists(address)) {
                Thread.sleep(500);
            }
            addresses.add(Files.readString(address).strip());
        }
        return addresses;
    }

    private void awaitAll(Running first) throws IOException, InterruptedException {
        for (String machine : machines) {
            while (!first.get(machine + "api/v1/machines", Machines.class).machines().stream()
                    .allMatch(one -> one.state().equals("serving") && one.isReached() && one.mirrorsBehind() == 0)) {
                Thread.sleep(500);
            }
        }
    }

    private boolean answersAlike(int searches) throws IOException, InterruptedException {
        int pages = 0;
        int withResults = 0;
        List<String> different = new ArrayList<>();
        for (int search = 0; search < searches; search++) {
            String question = questions.any();
            String nextAlone = "";
            String nextOfOne = "";
            for (int page = 0; page < MOST_PAGES; page++) {
                Page expected = page(alone.address().toString(), question, nextAlone);
                Page told = page(machines.get(random.nextInt(machines.size())), question, nextOfOne);
                pages++;
                withResults += expected.hasResults() ? 1 : 0;
                if (!told.body.equals(expected.body)) {
                    different.add(question + ", page " + (page + 1));
                    System.err.println(question + "\n" + expected.body + "\n" + told.body);
                    break;
                }
                nextAlone = expected.next;
                nextOfOne = told.next;
                if (nextAlone.isEmpty()) {
                    break;
                }
            }
        }
        table.target(
                searches + " searches of " + machines.size() + " machines" + (shares ? ", each shared by all" : "")
                        + ", each page of one by chance",
                "as one service answers",
                different.isEmpty(),
                "%d of %d pages (%d with results)%s",
                pages - different.size(),
                pages,
                withResults,
                different.isEmpty()
                        ? ""
                        : ", not: " + different.stream().limit(3).toList());
        return different.isEmpty();
    }

    private record Page(String body, String next) {
        boolean hasResults() {
            return !body.contains("\"files\":[]")
                    && !body.contains("\"symbols\":[]")
                    && !body.contains("\"commits\":[]");
        }
    }

    private Page page(String machine, String question, String cursor) throws IOException, InterruptedException {
        String body = alone.text(machine + question + (cursor.isEmpty() ? "" : "&cursor=" + cursor));
        int next = body.indexOf("\"next\":\"");
        return new Page(
                body.replaceAll(WHAT_DIFFERS, ""),
                next < 0 ? "" : body.substring(next + 8, body.indexOf('"', next + 8)));
    }

    /** One search asked of the service and of a machine in turn; and its next page, of the machine that began, and of another. */
    private void cost() throws IOException, InterruptedException {
        Figures one = new Figures();
        Figures several = new Figures();
        Figures more = new Figures();
        Figures there = new Figures();
        Figures passedOn = new Figures();
        int warm = WARM * machines.size();
        for (int search = 0; search < warm + TIMED; search++) {
            boolean counts = search >= warm;
            String question = questions.lines() + "&limit=5";
            String asked = machines.get(search % machines.size());
            String other = machines.get((search + 1) % machines.size());
            boolean isFirst = random.nextBoolean();
            double before = isFirst ? alone.millisOf(question) : 0;
            double took = alone.millisOf(asked + question);
            double service = isFirst ? before : alone.millisOf(question);
            String next = page(asked, question, "").next;
            double nextThere = next.isEmpty() ? 0 : alone.millisOf(asked + question + "&cursor=" + next);
            double nextPassedOn = next.isEmpty() ? 0 : alone.millisOf(other + question + "&cursor=" + next);
            if (counts) {
                one.add(service);
                several.add(took);
                more.add(took - service);
            }
            if (counts && !next.isEmpty()) {
                there.add(nextThere);
                passedOn.add(nextPassedOn);
            }
        }
        if (shares) {
            table.note(
                    "a search that " + machines.size() + " machines share, although it is short",
                    "%.2f ms (%.2f ms of one service)",
                    several.at(0.5),
                    one.at(0.5));
            return;
        }
        table.target(
                "a search, of " + machines.size() + " machines on this one",
                "at most 3 ms more",
                more.at(0.5) <= MOST_MORE,
                "%.2f ms more (median %.2f ms to %.2f ms of one service)",
                more.at(0.5),
                several.at(0.5),
                one.at(0.5));
        table.note(
                "its next page, got from the machine that began it",
                "%.2f ms (%.2f ms there)",
                passedOn.at(0.5),
                there.at(0.5));
    }

    /** Searches of all kinds, by chance. */
    private static final class Questions {
        private final Random random = new Random(20_261_203);
        private final Words words;

        Questions(Words words) {
            this.words = words;
        }

        private String q(String text) {
            return Running.parameter("q", text);
        }

        private String word() throws IOException {
            return words.words(1).getFirst();
        }

        private String oneOf(String... all) {
            return all[random.nextInt(all.length)];
        }

        private String rarely(String parameter) {
            return random.nextInt(4) == 0 ? parameter : "";
        }

        private String within() {
            return rarely("&repo=" + oneOf("berth-planner", "fare-gate", "passenger-app", "tidewatch"))
                    + rarely("&notRepo=" + oneOf("deck-signs", "hull-telemetry"))
                    + "&counts=exact" // quick ones are lower bounds, as far as the time reached
                    + oneOf("", "&limit=" + (1 + random.nextInt(30)));
        }

        /** Of lines alone, by a text. */
        String lines() throws IOException {
            return "api/v1/search/lines?" + q(words.texts(1).getFirst());
        }

        String any() throws IOException {
            return switch (random.nextInt(10)) {
                case 0, 1, 2 ->
                    lines() + rarely("&word=true") + rarely("&context=" + random.nextInt(5)) + order() + within();
                case 3 -> "api/v1/search/lines?reading=regex&" + q(word().replace('e', '.')) + order() + within();
                case 4 ->
                    "api/v1/search/lines?reading=expression&" + q(word() + oneOf(" or ", " and ") + word()) + within();
                case 5 ->
                    "api/v1/search/files?" + q(word().substring(0, 3)) + oneOf("", "&order=path", "&order=size")
                            + within();
                case 6 ->
                    "api/v1/search/symbols?" + q(word().substring(0, 4)) + oneOf("", "&role=use", "&role=any")
                            + within();
                case 7, 8 -> "api/v1/search/commits?" + q(word()) + rarely("&touches=docs/**") + within();
                default -> "api/v1/search/lines/over-time?" + q(word());
            };
        }

        private String order() {
            return oneOf("", "&order=relevance", "&order=recent", "&order=relevance&perFile=2");
        }
    }
}
