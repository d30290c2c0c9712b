package dev.oddbeacon.server.machines;

import static dev.oddbeacon.server.TestCluster.hits;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.api.FirstAdministrator;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.server.TestCluster;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.records.MachineRecords;
import dev.oddbeacon.server.secrets.Vault;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;

/** A search that goes on at another machine than it began. */
class PagesElsewhereTest {
    @TempDir
    private static Path folder;

    private static TestCluster cluster;
    private static TestService one;
    private static TestService two;

    @BeforeAll
    static void start() throws IOException {
        cluster = new TestCluster(folder);
        one = cluster.start("one");
        two = cluster.start("two");
        Random random = new Random(20261202);
        for (String name : List.of("fleet", "quay", "tide")) {
            TestRepository repository = cluster.repository(name, TestRepository.birds(random));
            for (int file = 0; file < 4; file++) {
                repository
                        .write(
                                "logs/avocet_" + file + ".java",
                                "class Avocet" + file + " {}\n" + TestRepository.birds(random))
                        .commit("Avocets of " + file);
            }
            one.add(name, repository.path());
        }
        Waiting.until(() -> hits(two, "avocet") == hits(one, "avocet")
                && two.get("/api/v1/search/commits", "q", "").body().contains("\"complete\":true"));
        Waiting.until(() -> TestCluster.reachOneAnother(one, two));
    }

    @AfterAll
    static void stop() {
        two.close();
        one.close();
    }

    private static List<String> page(Answer answer) {
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return Stream.of("files", "symbols", "commits")
                .flatMap(field -> StreamSupport.stream(answer.json().path(field).spliterator(), false))
                .map(JsonNode::toString)
                .toList();
    }

    static Stream<List<String>> searches() {
        return Stream.of(
                List.of("lines", "q", "avocet"),
                List.of("lines", "q", "avocet", "order", "relevance", "perFile", "1"),
                List.of("lines", "q", "avo.et", "reading", "regex", "context", "1"),
                List.of("files", "q", "avocet"),
                List.of("symbols", "q", "Avocet"),
                List.of("commits", "q", "Avocets"));
    }

    /** The pages of a search, each asked of the machine whose turn it is. */
    private static List<List<String>> pages(List<String> search, boolean byPost, TestService... inTurn) {
        List<List<String>> pages = new ArrayList<>();
        String next = "";
        for (int asked = 0; asked == 0 || !next.isEmpty(); asked++) {
            List<String> parameters = new ArrayList<>(search.subList(1, search.size()));
            parameters.addAll(List.of("limit", "2", "cursor", next));
            String path = "/api/v1/search/" + search.getFirst();
            TestService machine = inTurn[asked % inTurn.length];
            Answer answer = byPost
                    ? machine.post(path, "application/x-www-form-urlencoded", form(parameters))
                    : machine.get(path, parameters.toArray(String[]::new));
            pages.add(page(answer));
            next = answer.json().path("next").asString("");
        }
        return pages;
    }

    private static String form(List<String> parameters) {
        return IntStream.range(0, parameters.size() / 2)
                .mapToObj(i -> parameters.get(2 * i) + "="
                        + URLEncoder.encode(parameters.get(2 * i + 1), StandardCharsets.UTF_8))
                .reduce((a, b) -> a + "&" + b)
                .orElse("");
    }

    @ParameterizedTest
    @MethodSource("searches")
    void eachPageMayBeAskedOfAnotherMachine(List<String> search) {
        List<List<String>> alone = pages(search, false, one);
        assertThat(alone).hasSizeGreaterThan(2).allMatch(page -> !page.isEmpty());
        assertThat(pages(search, false, one, two)).isEqualTo(alone);
        assertThat(pages(search, true, two, one, one)).isEqualTo(alone);
    }

    private static String begun(TestService machine) {
        return machine.get("/api/v1/search/lines", "q", "avocet", "limit", "2")
                .json()
                .path("next")
                .asString();
    }

    private static Answer goesOn(TestService machine, String cursor) {
        return machine.get("/api/v1/search/lines", "q", "avocet", "limit", "2", "cursor", cursor);
    }

    @Test
    void whatTheCallerMayNotSeeWhereItBeganIsNotTold() {
        String cursor = begun(one);
        one.hide(Set.of("fleet"));
        try {
            assertThat(goesOn(two, cursor).status()).isEqualTo(410);
        } finally {
            one.hide(Set.of());
        }
        assertThat(goesOn(two, cursor).status()).isEqualTo(200);
    }

    @Test
    void aRefusalIsToldAsItIs() {
        String cursor = begun(one);
        Answer refused = two.get("/api/v1/search/files", "q", "avocet", "cursor", cursor);
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.detail()).contains("is of another kind of search");
        assertThat(goesOn(two, cursor.replaceAll("^(l-[^-]+-).*", "$1zzz-0-0-0"))
                        .status())
                .as("a view that nobody keeps")
                .isEqualTo(410);
    }

    @Test
    void aMachineThatHasEndedTakesItsPagesWithIt() throws IOException {
        TestService three = cluster.start("three");
        try {
            Waiting.until(() -> TestCluster.reachOneAnother(one, two, three));
            String cursor = begun(three);
            assertThat(goesOn(two, cursor).status()).isEqualTo(200);
            three.close();
            Waiting.until(() -> goesOn(two, cursor).status() == 410);
        } finally {
            one.post("/api/v1/machines/three/retire", "application/json", "");
        }
    }

    /** How somebody asks for the next page of a search, of another machine. */
    private static Answer asksOn(TestService.Requests who, String cursor) {
        return who.get("/api/v1/search/lines", "q", "avocet", "limit", "1", "cursor", cursor);
    }

    @Test
    void whoeverSignsInSeesWhatTheyMaySeeWhicheverMachineIsAsked(@TempDir Path apart) throws IOException {
        TestCluster ofTeam = new TestCluster(apart);
        String[] options = {"--oddbeacon.accounts=true", "--oddbeacon.locations.roots=" + apart};
        try (TestService first = ofTeam.start("first", options);
                TestService second = ofTeam.start("second", options)) {
            String cookie = first.with(Map.of())
                    .post(
                            "/api/v1/session/first",
                            new FirstAdministrator(
                                    Files.readString(ofTeam.data("first").resolve("first-sign-in")),
                                    "edda",
                                    "Edda Quill",
                                    "a tide of thirteen"))
                    .cookie()
                    .orElseThrow();
            TestService.Requests edda = first.browser(cookie);
            for (String name : List.of("seen", "hidden")) {
                Path location = ofTeam.repository(name, "avocet of " + name + "\navocet\n")
                        .path();
                List<String> viewers = name.equals("seen") ? List.of("everybody") : List.of("person:edda");
                assertThat(edda.post(
                                        "/api/v1/repositories",
                                        new NewRepository(name, "", location.toString(), List.of(), List.of(), viewers))
                                .status())
                        .isEqualTo(201);
            }
            Map<String, String> token = Map.of(
                    "Authorization",
                    "Bearer "
                            + edda.post("/api/v1/tokens", new NewToken("pipeline", "reader", 30, List.of("seen")))
                                    .json()
                                    .path("token")
                                    .asString());
            Waiting.until(() -> asksOn(second.browser(cookie), "").body().contains("\"hits\":4"));
            Waiting.until(() -> asksOn(edda, "").body().contains("\"hits\":4"));
            Waiting.until(() -> asksOn(first.with(token), "").body().contains("\"hits\":2"));
            String ofEdda = asksOn(edda, "").json().path("next").asString();
            String ofToken = asksOn(first.with(token), "").json().path("next").asString();
            Waiting.until(() -> asksOn(second.browser(cookie), ofEdda).status() == 200);
            assertThat(asksOn(second.browser(cookie), ofEdda).body()).contains("\"hits\":4");
            assertThat(second.browser(cookie)
                            .post(
                                    "/api/v1/search/lines",
                                    "application/x-www-form-urlencoded",
                                    "q=avocet&limit=1&cursor=" + ofEdda)
                            .status())
                    .isEqualTo(200);
            assertThat(asksOn(second.with(token), ofToken).body())
                    .contains("\"hits\":2")
                    .doesNotContain("hidden");
            assertThat(asksOn(second.with(token), ofEdda).status())
                    .as("the page of somebody who sees more")
                    .isEqualTo(410);
            assertThat(asksOn(second.with(Map.of()), ofEdda).status()).isEqualTo(401);
        }
    }

    @Test
    void onlyMachinesOfTheClusterAreAnswered() {
        Answering answering = two.bean(Answering.class);
        Vault vault = two.bean(Vault.class);
        long number = two.bean(MachineRecords.class).all().stream()
                .filter(machine -> machine.name().equals("two"))
                .findFirst()
                .orElseThrow()
                .id();
        String request = """
                {"id":"1","path":"/api/v1/search/lines","form":"q=avocet","headers":{},"caller":"127.0.0.1","isSecure":false}""";
        byte[] right = vault.encrypt(Request.purpose(number), request);
        assertThat(vault.decrypt(Request.answerPurpose("1"), answering.answer(right))
                        .orElseThrow())
                .contains("avocet");
        byte[] changed = right.clone();
        changed[changed.length - 1]++;
        for (byte[] wrong : Arrays.asList(changed, vault.encrypt(Request.purpose(number + 1), request), new byte[0])) {
            assertThatThrownBy(() -> answering.answer(wrong)).isInstanceOf(IllegalArgumentException.class);
        }
    }
}
