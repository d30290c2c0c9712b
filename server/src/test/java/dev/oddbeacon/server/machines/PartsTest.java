package dev.oddbeacon.server.machines;

import static dev.oddbeacon.server.TestCluster.hits;
import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.TestCluster;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.Waiting;
import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Searches that machines do together, although they would not take one of them long. */
class PartsTest {
    private static final String LINES = "/api/v1/search/lines";
    private static final String OVER_TIME = LINES + "/over-time";
    private static final String COMMITS = "/api/v1/search/commits";
    private static final String FILES = "/api/v1/search/files";
    private static final String SYMBOLS = "/api/v1/search/symbols";
    private static final String PART = "/part";
    private static final List<String> REPOSITORIES =
            IntStream.range(0, 8).mapToObj(number -> "fleet-" + number).toList();

    @TempDir
    private static Path folder;

    private static TestCluster cluster;
    private static TestService one;
    private static TestService two;

    @BeforeAll
    static void start() throws IOException {
        cluster = new TestCluster(folder);
        one = cluster.start("one", "--oddbeacon.cluster.share-after=1ns");
        two = cluster.start("two", "--oddbeacon.cluster.share-after=1ns");
        Random random = new Random(20261202);
        for (String name : REPOSITORIES) {
            TestRepository repository = cluster.repository(name, TestRepository.birds(random));
            for (int file = 0; file < 3; file++) {
                repository.write(
                        "logs/" + (file == 0 ? "" : "days/") + "avocet_" + file + ".java",
                        "class Avocet" + file + " {}\n" + TestRepository.birds(random));
            }
            repository.commit("Avocets");
            for (int day = 1; day <= 3; day++) { // some commits of all were made in the same second
                repository.write("logs/days/dunlin.txt", TestRepository.birds(random));
                repository.commit("2026-06-0" + day + "T08:00:00Z", "Day " + day + ", " + TestRepository.birds(random));
            }
            one.add(name, repository.path());
        }
        Waiting.until(() -> Stream.of(one, two).allMatch(PartsTest::hasAllPasts));
        Waiting.until(() -> hits(two, "avocet") == hits(one, "avocet")
                && Stream.of(one, two)
                        .allMatch(machine ->
                                machine.get(LINES, "q", "avocet").body().contains("\"complete\":true")));
        Waiting.until(() -> TestCluster.reachOneAnother(one, two));
    }

    @AfterAll
    static void stop() {
        two.close();
        one.close();
    }

    /** How many parts of searches of a machine others have answered; or it has searched itself, as they have not. */
    private static double parts(TestService machine, String outcome) {
        return machine.bean(MeterRegistry.class).find("oddbeacon.parts").tag("outcome", outcome).counters().stream()
                .mapToDouble(Counter::count)
                .sum();
    }

    /** How many parts others were asked for: on a busy machine, one may not answer in time. */
    private static double asked(TestService machine) {
        return parts(machine, "answered") + parts(machine, "searched here");
    }

    private static boolean hasAllPasts(TestService machine) {
        Answer commits = machine.get(COMMITS, "counts", "exact");
        return commits.body().contains("\"commits\":" + 5 * REPOSITORIES.size() + ",")
                && !commits.body().contains("\"complete\":false");
    }

    /** A search, by its path and its parameters. */
    record Search(String path, List<String> parameters) {
        static Search of(String path, String... parameters) {
            return new Search(path, List.of(parameters));
        }

        Search with(String name, String value) {
            return new Search(
                    path,
                    Stream.concat(parameters.stream(), Stream.of(name, value)).toList());
        }

        Answer at(TestService machine) {
            return machine.get(path, parameters.toArray(String[]::new));
        }

        private String form() {
            return IntStream.range(0, parameters.size() / 2)
                    .mapToObj(number -> parameters.get(number * 2) + "="
                            + URLEncoder.encode(parameters.get(number * 2 + 1), StandardCharsets.UTF_8))
                    .collect(Collectors.joining("&"));
        }

        @Override
        public String toString() {
            return path.substring(LINES.lastIndexOf('/') + 1) + "?" + form();
        }
    }

    /** An answer without what differs from request to request. */
    private static String told(int status, String body) {
        assertThat(status).as(body).isEqualTo(200);
        ObjectNode json = (ObjectNode) JsonMapper.shared().readTree(body);
        json.remove("tookMillis");
        if (json.path("next").isString()) {
            json.put("next", json.path("next").asString().replaceAll("^.-[^-]+-[^-]+", "")); // its place is the same
        }
        return json.toString();
    }

    private static String told(Answer answer) {
        return told(answer.status(), answer.body());
    }

    /** An answer that a machine finds by itself, as one that it is asked for by others. */
    private static String alone(TestService machine, Search search) {
        try {
            Request.Answer answer = machine.bean(InnerDoor.class)
                    .ask(new Request("1", search.path, search.form(), Map.of(), "127.0.0.1", false));
            return told(answer.status(), answer.body());
        } catch (IOException | InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    static Stream<Search> searches() {
        return Stream.of(
                        Search.of(LINES, "q", "avocet"),
                        Search.of(LINES, "q", "avocet", "limit", "1"),
                        Search.of(LINES, "q", "avocet", "limit", "7", "order", "relevance", "perFile", "2"),
                        Search.of(LINES, "q", "avocet", "limit", "7", "order", "recent"),
                        Search.of(LINES, "q", "avo.et|dunl", "reading", "regex", "limit", "40", "context", "1"),
                        Search.of(LINES, "q", "avocet", "only", "counts"),
                        Search.of(LINES, "q", "avocet", "only", "files", "limit", "5"),
                        Search.of(LINES, "q", "avocet", "without", "true"),
                        Search.of(LINES, "q", "avocet", "repo", "fleet-1", "repo", "fleet-5"),
                        Search.of(LINES, "q", "declares(Avocet*) and curlew", "reading", "expression", "limit", "3"),
                        Search.of(LINES, "q", "dunlin and changed(after: 2026-06-01)", "reading", "expression"),
                        Search.of(LINES, "q", "avocet", "near", "fleet-3/logs/avocet_0.java", "limit", "9"),
                        Search.of(LINES, "q", "nothing of the kind"),
                        Search.of(COMMITS),
                        Search.of(COMMITS, "q", "avocet", "limit", "3"),
                        Search.of(COMMITS, "adds", "dunlin 1", "limit", "7"),
                        Search.of(COMMITS, "q", "not adds(bittern)", "reading", "expression"),
                        Search.of(COMMITS, "touches", "logs/days/*", "after", "2026-06-02", "repo", "*-[1-4]"),
                        Search.of(COMMITS, "q", "nothing of the kind"),
                        Search.of(OVER_TIME, "q", "avocet", "limit", "5"),
                        Search.of(OVER_TIME, "q", "dunlin [0-9]1", "reading", "regex", "under", "logs/days"),
                        Search.of(OVER_TIME, "q", "nothing of the kind"),
                        Search.of(FILES),
                        Search.of(FILES, "q", "avoc day", "limit", "9"),
                        Search.of(FILES, "q", "avtjava", "repo", "*-[1-2]"),
                        Search.of(FILES, "q", "*.java", "reading", "glob", "order", "recent", "limit", "3"),
                        Search.of(FILES, "q", "days", "kind", "folder", "order", "name"),
                        Search.of(FILES, "q", "avocet and holds(curlew)", "reading", "expression", "limit", "3"),
                        Search.of(FILES, "q", "nothing of the kind"),
                        Search.of(SYMBOLS, "q", "avo", "limit", "5"),
                        Search.of(SYMBOLS, "q", "Avocet1", "reading", "plain", "role", "any"),
                        Search.of(SYMBOLS, "q", "[ab].*", "reading", "regex", "kind", "class"),
                        Search.of(SYMBOLS, "q", "nothing of the kind"))
                .map(search ->
                        List.of(OVER_TIME, FILES).contains(search.path) ? search : search.with("counts", "exact"));
    }

    /** A machine that was slow is not asked for some seconds. */
    @BeforeEach
    void eachIsAsked() {
        double before = parts(one, "answered");
        Waiting.until(() ->
                one.get(LINES, "q", "avocet", "counts", "exact").status() == 200 && parts(one, "answered") > before);
    }

    @ParameterizedTest
    @MethodSource("searches")
    void findTogetherWhatOneFinds(Search search) {
        double before = asked(one);
        assertThat(told(search.at(one))).isEqualTo(alone(one, search));
        boolean isShort = search.path.equals(LINES) && search.parameters.contains("nothing of the kind");
        assertThat(asked(one)).isEqualTo(before + (isShort ? 0 : 1));
    }

    static Stream<Search> kinds() {
        return Stream.of(
                Search.of(LINES, "q", "avocet"),
                Search.of(LINES, "q", "avocet", "order", "recent"),
                Search.of(OVER_TIME, "q", "avocet"),
                Search.of(COMMITS),
                Search.of(FILES),
                Search.of(SYMBOLS, "q", "avocet"));
    }

    @ParameterizedTest
    @MethodSource("kinds")
    void whatTheOtherFoundIsTaken(Search search) {
        Waiting.until(() -> {
            double before = parts(one, "answered");
            assertThat(search.at(one).status()).isEqualTo(200);
            return parts(one, "answered") == before + 1;
        });
    }

    @Test
    void furtherPagesAreSharedToo() {
        for (String path : List.of(COMMITS, FILES, SYMBOLS)) {
            Search search = Search.of(path, "q", "avocet", "limit", "3");
            String next = search.at(one).json().path("next").asString();
            Search second = search.with("cursor", next);
            double before = asked(one);
            assertThat(told(second.at(one))).isEqualTo(alone(one, second)).contains("\"repository\":\"fleet-");
            assertThat(asked(one)).isEqualTo(before + 1);
        }
    }

    @Test
    void theNextPageGoesOn() {
        Answer first = one.get(LINES, "q", "avocet", "limit", "9", "counts", "exact");
        String alone = one.get(LINES, "q", "avocet", "limit", "1000")
                .json()
                .path("files")
                .toString();
        List<String> lines = new ArrayList<>();
        for (Answer page = first; ; ) {
            page.json()
                    .path("files")
                    .forEach(file -> lines.add(file.path("repository").asString() + "/"
                            + file.path("path").asString()));
            String next = page.json().path("next").asString("");
            if (next.isEmpty()) {
                break;
            }
            page = two.get(LINES, "q", "avocet", "limit", "9", "cursor", next);
            assertThat(page.status()).isEqualTo(200);
        }
        assertThat(lines.stream().distinct())
                .isEqualTo(lines.stream().distinct().sorted().toList())
                .allSatisfy(line -> assertThat(alone).contains("\"" + line.substring(line.indexOf('/') + 1) + "\""));
        assertThat(lines.stream().distinct().count())
                .isEqualTo(first.json().path("counts").path("files").asLong());
    }

    @Test
    void aMachineWithOtherTextIsNotBelieved() {
        Search search = Search.of(LINES, "q", "avocet", "counts", "exact");
        String alone = alone(one, search);
        two.hide(Set.copyOf(REPOSITORIES.subList(0, 7)));
        try {
            double before = parts(one, "searched here");
            assertThat(told(search.at(one))).isEqualTo(alone);
            assertThat(parts(one, "searched here")).isEqualTo(before + 1);
        } finally {
            two.hide(Set.of());
        }
    }

    @Test
    void aMachineThatDoesNotAnswerInTimeIsNotWaitedFor() {
        Search search = Search.of(LINES, "q", "avocet", "counts", "exact");
        String alone = alone(one, search);
        double before = parts(one, "searched here");
        two.slowDown(Duration.ofSeconds(3));
        try {
            assertThat(told(search.at(one))).isEqualTo(alone);
            assertThat(parts(one, "searched here")).isEqualTo(before + 1);
            assertThat(told(search.at(one))).isEqualTo(alone);
            assertThat(parts(one, "searched here"))
                    .as("it is left alone for a while")
                    .isEqualTo(before + 1);
        } finally {
            two.slowDown(Duration.ZERO);
        }
        eachIsAsked();
    }

    @Test
    void nothingIsToldOfWhatTheCallerMayNotSee() {
        Set<String> hidden = Set.of("fleet-2", "fleet-6");
        one.hide(hidden);
        two.hide(hidden);
        try {
            for (String path : List.of(LINES, OVER_TIME, COMMITS, FILES, SYMBOLS)) {
                Search search = Search.of(path, "q", "avocet", "counts", "exact", "limit", "1000");
                double before = asked(one);
                assertThat(told(search.at(one)))
                        .isEqualTo(alone(one, search))
                        .contains("fleet-3")
                        .doesNotContain("fleet-2")
                        .doesNotContain("fleet-6");
                assertThat(asked(one)).isEqualTo(before + 1);
            }
        } finally {
            one.hide(Set.of());
            two.hide(Set.of());
        }
    }

    @Test
    void whatDependsOnOtherRepositoriesIsNotShared() {
        double before = asked(one);
        assertThat(one.get(LINES, "q", "uses(Avocet1)", "reading", "expression").status())
                .isEqualTo(200);
        for (Search search : List.of(
                Search.of(SYMBOLS, "q", "Quay.Avocet1", "reading", "plain", "role", "any"),
                Search.of(SYMBOLS, "of", "fleet-1/logs/avocet_0.java:1:7"))) {
            assertThat(search.at(one).status()).isEqualTo(200);
        }
        assertThat(asked(one)).isEqualTo(before);
    }

    @Test
    void onlyOtherMachinesAreAnsweredForAPart() throws IOException, InterruptedException {
        String form = "q=avocet&fingerprint=1&part=";
        for (String path : List.of(LINES, COMMITS, OVER_TIME, FILES, SYMBOLS)) {
            assertThat(one.post(path + PART, "application/x-www-form-urlencoded", form)
                            .status())
                    .as(path)
                    .isEqualTo(404);
            InnerDoor door = two.bean(InnerDoor.class);
            assertThat(door.ask(new Request("1", path + PART, form, Map.of(), "127.0.0.1", false))
                            .status())
                    .as("of another text: %s", path)
                    .isEqualTo(409);
        }
    }

    @Test
    void aMachineThatHasEndedIsNotMissed() throws IOException {
        Search search = Search.of(LINES, "q", "avocet", "counts", "exact");
        String alone = alone(one, search);
        try (TestService three = cluster.start("three")) {
            Waiting.until(() -> TestCluster.reachOneAnother(one, two, three));
            Membership membership = one.bean(Membership.class);
            // of 271, a third each once they have moved
            Waiting.until(() -> membership.partitionsOfOthers().values().stream()
                            .filter(part -> part.cardinality() >= 89 && part.cardinality() <= 92)
                            .count()
                    == 2);
        }
        assertThat(told(search.at(one))).isEqualTo(alone);
        assertThat(one.post("/api/v1/machines/three/retire", "application/json", "")
                        .status())
                .isEqualTo(200);
    }
}
