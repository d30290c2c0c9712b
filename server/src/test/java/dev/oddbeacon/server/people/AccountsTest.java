package dev.oddbeacon.server.people;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.DeviceDecision;
import dev.oddbeacon.api.FirstAdministrator;
import dev.oddbeacon.api.NewAccount;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.api.SignIn;
import dev.oddbeacon.api.Viewers;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** People sign in, and see and do what they may, over HTTP. */
class AccountsTest {
    private static final String PASSWORD = "seven grey gulls";

    private static List<String> database;
    private static Path data;
    private static TestService service;
    private static Requests administrator;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        database = Database.shared().create();
        data = folder.resolve("data");
        service =
                TestService.start(database, data, "--oddbeacon.accounts=true", "--oddbeacon.locations.roots=" + folder);
        String secret = Files.readString(data.resolve("first-sign-in"));
        Answer wrong = service.post(
                "/api/v1/session/first",
                "application/json",
                "{\"secret\":\"x\",\"name\":\"mallory\",\"password\":\"" + PASSWORD + "\"}");
        assertThat(wrong.status()).isEqualTo(404);
        String right = "{\"secret\":\"" + secret + "\",\"name\":\"ada\",\"displayName\":\"Ada Quill\",\"password\":\""
                + PASSWORD + "\"}";
        Answer first = service.post("/api/v1/session/first", "application/json", right);
        assertThat(first.status()).as(first.body()).isEqualTo(200);
        administrator = service.browser(first.cookie().orElseThrow());
        assertThat(service.post("/api/v1/session/first", "application/json", right)
                        .status())
                .as("the link is good once")
                .isEqualTo(404);
        assertThat(data.resolve("first-sign-in")).doesNotExist();
        for (String name : List.of("tide", "hull")) {
            TestRepository repository = TestRepository.create(folder.resolve(name))
                    .write("a.txt", "low tide\n".repeat(3))
                    .write("b.txt", "low tide\n")
                    .commit("Gauge of " + name);
            register(administrator, name, repository.path(), List.of());
        }
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    /** Makes the first administrator of another service. @return the cookie */
    private static String first(TestService other, Path folder) {
        try {
            return other.with(Map.of())
                    .post(
                            "/api/v1/session/first",
                            new FirstAdministrator(
                                    Files.readString(folder.resolve("first-sign-in")), "ada", "Ada", PASSWORD))
                    .cookie()
                    .orElseThrow();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void register(Requests who, String name, Path location, List<String> visibleTo) {
        Answer added = who.post(
                "/api/v1/repositories",
                new NewRepository(name, null, location.toString(), List.of(), List.of(), visibleTo));
        assertThat(added.status()).as(added.body()).isEqualTo(201);
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (!administrator
                .get("/api/v1/repositories/" + name)
                .json()
                .path("state")
                .asString()
                .equals("ready")) {
            assertThat(System.nanoTime()).isLessThan(deadline);
        }
    }

    private static void account(String name, String role, String... teams) {
        Answer added =
                administrator.post("/api/v1/accounts", new NewAccount(name, null, role, List.of(teams), PASSWORD));
        assertThat(added.status()).as(added.body()).isEqualTo(201);
    }

    private static Answer signIn(String name, String password) {
        return service.with(Map.of("Origin", service.address())).post("/api/v1/session", new SignIn(name, password));
    }

    private static String cookie(String name) {
        Answer answer = signIn(name, PASSWORD);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return answer.cookie().orElseThrow();
    }

    private static Requests person(String name, String role, String... teams) {
        account(name, role, teams);
        return service.browser(cookie(name));
    }

    private static void show(String repository, String... viewers) {
        Answer shown =
                administrator.put("/api/v1/repositories/" + repository + "/viewers", new Viewers(List.of(viewers)));
        assertThat(shown.status()).as(shown.body()).isEqualTo(200);
    }

    private static List<String> repositories(Requests who) {
        List<String> names = new ArrayList<>();
        who.get("/api/v1/repositories")
                .json()
                .forEach(one -> names.add(one.path("name").asString()));
        return names;
    }

    private static int hits(Requests who) {
        return who.get("/api/v1/search/lines", "q", "low tide", "counts", "exact")
                .json()
                .path("counts")
                .path("hits")
                .asInt();
    }

    @Test
    void withAccountsFoldersHaveToBeAllowed(@TempDir Path elsewhere) throws IOException {
        TestRepository repository = TestRepository.create(elsewhere.resolve("tide"))
                .write("a.txt", "tide\n")
                .commit("Gauge");
        administrator.post(
                "/api/v1/repositories",
                new NewRepository("elsewhere", null, repository.path().toString(), null, null, null));
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        JsonNode state;
        do {
            assertThat(System.nanoTime()).isLessThan(deadline);
            state = administrator.get("/api/v1/repositories/elsewhere").json();
        } while (!state.path("state").asString().equals("failed"));
        assertThat(state.path("problem").asString()).contains("no Git repository that the service may read");
    }

    @Nested
    class Outsiders {
        @Test
        void areToldToSignInWhateverTheyAsk() {
            List<String> paths = new ArrayList<>();
            assertThat(service.with(Map.of("Cookie", "oddbeacon-session=made-up"))
                            .get("/api/v1/openapi.json")
                            .status())
                    .isEqualTo(401);
            administrator
                    .get("/api/v1/openapi.json")
                    .json()
                    .path("paths")
                    .propertyNames()
                    .forEach(path -> paths.add(path.replace("{name}", "tide").replaceAll("\\{\\w+}", "1")));
            assertThat(paths).hasSizeGreaterThan(40);
            paths.removeAll(List.of(
                    "/api/v1/session",
                    "/api/v1/session/first",
                    "/api/v1/session/device",
                    "/api/v1/session/device/token",
                    "/api/v1/hooks/push",
                    "/api/v1/feeds/1")); // told by an address that nobody can guess
            assertThat(service.post("/api/v1/hooks/push", "application/json", "{}")
                            .status())
                    .as("what is not signed")
                    .isEqualTo(401);
            for (String path : paths) {
                for (Answer answer : List.of(
                        service.get(path), service.post(path, "application/json", "{}"), service.delete(path))) {
                    assertThat(answer.status()).as(path).isEqualTo(401);
                    assertThat(answer.detail()).startsWith("Sign in first").doesNotContain("tide");
                }
            }
            assertThat(service.get("/actuator/metrics").status()).isEqualTo(401);
        }

        @Test
        void seeTheConsoleAndThatPeopleSignInHere() {
            assertThat(service.get("/").status()).isEqualTo(200);
            Answer session = service.get("/api/v1/session");
            assertThat(session.json().path("accounts").asBoolean()).isTrue();
            assertThat(session.json().path("person").isNull()).isTrue();
        }

        @Test
        void learnNothingFromAWrongPassword() {
            account("nils", "reader");
            Answer known = signIn("nils", "wrong wrong wrong");
            Answer unknown = signIn("nobody", "wrong wrong wrong");
            assertThat(known.status()).isEqualTo(401);
            assertThat(known.body()).isEqualTo(unknown.body());
            assertThat(known.cookie()).isEmpty();
        }

        @Test
        void areSlowedWhenTheyGuess() {
            account("otto", "reader");
            for (int i = 0; i < 5; i++) {
                assertThat(signIn("Otto ", "guess number " + i).status()).isEqualTo(401);
            }
            Answer slowed = signIn("otto", PASSWORD);
            assertThat(slowed.status()).as("even with the right one").isEqualTo(429);
            assertThat(slowed.detail()).contains("Try again in");
        }
    }

    @Nested
    class Sessions {
        @Test
        void beginAnewWithEachSignIn() {
            account("pia", "reader");
            String first = cookie("pia");
            Answer second = service.browser(first).post("/api/v1/session", new SignIn("PIA", PASSWORD));
            assertThat(second.status()).isEqualTo(200);
            assertThat(second.cookie().orElseThrow().replaceAll(";.*", "")).isNotEqualTo(first.replaceAll(";.*", ""));
            assertThat(service.browser(first).get("/api/v1/repositories").status())
                    .as("the one before has ended")
                    .isEqualTo(401);
        }

        @Test
        void areNotForScriptsAndOtherSites() {
            account("quinn", "reader");
            assertThat(cookie("quinn")).contains("HttpOnly", "SameSite=Lax", "Path=/");
        }

        @Test
        void endEverywhereAtOnce() {
            account("rosa", "reader");
            Requests stolen = service.browser(cookie("rosa"));
            Requests own = service.browser(cookie("rosa"));
            assertThat(stolen.get("/api/v1/repositories").status()).isEqualTo(200);
            assertThat(own.delete("/api/v1/session/all").status()).isEqualTo(204);
            assertThat(stolen.get("/api/v1/repositories").status()).isEqualTo(401);
            assertThat(own.get("/api/v1/repositories").status()).isEqualTo(401);
        }

        @Test
        void endWithANewPasswordAndWithTheAccount() {
            Requests sam = person("sam", "reader");
            administrator.put("/api/v1/accounts/sam", new NewAccount(null, null, null, null, "another long password"));
            assertThat(sam.get("/api/v1/repositories").status()).isEqualTo(401);
            Requests again = service.browser(
                    signIn("sam", "another long password").cookie().orElseThrow());
            assertThat(again.get("/api/v1/repositories").status()).isEqualTo(200);
            assertThat(administrator.delete("/api/v1/accounts/sam").status()).isEqualTo(204);
            assertThat(again.get("/api/v1/repositories").status()).isEqualTo(401);
            assertThat(signIn("sam", "another long password").status()).isEqualTo(401);
            assertThat(administrator
                            .post("/api/v1/accounts", new NewAccount("sam", null, null, null, PASSWORD))
                            .status())
                    .as("names are not given again")
                    .isEqualTo(409);
        }

        @Test
        void goOnWhileTheDatabaseStandsStill() throws InterruptedException {
            Path folder = data.resolveSibling("still");
            try (Database own = Database.start();
                    TestService still = TestService.start(own.create(), folder, "--oddbeacon.accounts=true")) {
                Requests ada = still.browser(first(still, folder));
                assertThat(ada.get("/api/v1/repositories").status()).isEqualTo(200);
                own.freeze();
                Thread.sleep(700); // for longer no connection is used without being tried
                for (int i = 0; i < 5; i++) {
                    long start = System.nanoTime();
                    assertThat(ada.get("/api/v1/search/lines", "q", "tide").status())
                            .isEqualTo(200);
                    assertThat(Duration.ofNanos(System.nanoTime() - start)).isLessThan(Duration.ofSeconds(2));
                }
                Answer unknown = still.browser("oddbeacon-session=made-up").get("/api/v1/repositories");
                assertThat(unknown.status()).isEqualTo(503);
                assertThat(unknown.detail()).contains("nobody can sign in now");
                own.thaw();
            }
        }

        @Test
        void changeNothingUnlessAPageOfOursAsks() {
            account("tove", "maintainer");
            String cookie = cookie("tove").replaceAll(";.*", "");
            Answer answer = service.with(Map.of("Cookie", cookie)).delete("/api/v1/repositories/nowhere");
            assertThat(answer.status()).isEqualTo(403);
            assertThat(answer.detail()).contains("must come from a page of this service");
            assertThat(service.browser(cookie)
                            .delete("/api/v1/repositories/nowhere")
                            .status())
                    .isEqualTo(404);
        }

        @Test
        void outlastARestart() {
            List<String> own = Database.shared().create();
            Path folder = data.resolveSibling("restarted");
            String cookie;
            try (TestService before = TestService.start(own, folder, "--oddbeacon.accounts=true")) {
                cookie = first(before, folder);
            }
            try (TestService after = TestService.start(own, folder, "--oddbeacon.accounts=true")) {
                assertThat(after.browser(cookie).get("/api/v1/accounts").status())
                        .isEqualTo(200);
                assertThat(folder.resolve("first-sign-in")).doesNotExist();
            }
        }
    }

    @Nested
    class WhatIsSeen {
        @Test
        void isNothingUntilItIsShown() {
            show("tide");
            show("hull");
            Requests uma = person("uma", "maintainer");
            assertThat(repositories(uma)).isEmpty();
            assertThat(hits(uma)).isZero();
            assertThat(uma.get("/api/v1/repositories/tide").status()).isEqualTo(404);
            assertThat(repositories(administrator)).contains("hull", "tide");
        }

        @Test
        void followsTheNextRequest() {
            Requests vera = person("vera", "reader", "deck-crew");
            show("tide", "team:deck-crew");
            assertThat(repositories(vera)).containsExactly("tide");
            assertThat(hits(vera)).isEqualTo(4);
            show("hull", "person:vera");
            assertThat(repositories(vera)).containsExactly("hull", "tide");
            show("hull", "everybody");
            assertThat(repositories(vera)).containsExactly("hull", "tide");
            administrator.put("/api/v1/accounts/vera", new NewAccount(null, null, null, List.of(), null));
            assertThat(repositories(vera)).containsExactly("hull");
            show("hull");
            assertThat(repositories(vera)).isEmpty();
        }

        @Test
        void endsACursorWhenItChanges() {
            Requests wim = person("wim", "reader");
            show("tide", "person:wim");
            show("hull", "person:wim");
            String next = wim.get("/api/v1/search/lines", "q", "low", "limit", "1")
                    .json()
                    .path("next")
                    .asString();
            assertThat(next).isNotEmpty();
            show("hull");
            Answer later = wim.get("/api/v1/search/lines", "q", "low", "limit", "1", "cursor", next);
            assertThat(later.status()).isEqualTo(410);
        }

        @Test
        void tellsNothingOfAHiddenName() throws IOException {
            show("hull");
            Requests xenia = person("xenia", "maintainer");
            TestRepository own = TestRepository.create(data.resolveSibling("own"))
                    .write("a.txt", "own\n")
                    .commit("Own");
            Answer taken = xenia.post(
                    "/api/v1/repositories",
                    new NewRepository("hull", null, own.path().toString(), null, null, null));
            assertThat(taken.status()).isEqualTo(400);
            assertThat(taken.detail()).doesNotContain("already").contains("ask an administrator");
            register(xenia, "own", own.path(), null);
            assertThat(repositories(xenia)).as("who registers it sees it").contains("own");
        }

        @ParameterizedTest
        @ValueSource(strings = {"team:nobody", "person:nobody", "all", "person:", "EVERYBODY"})
        void isSaidOfPeopleAndTeamsThatThereAre(String viewer) {
            Answer answer = administrator.put("/api/v1/repositories/hull/viewers", new Viewers(List.of(viewer)));
            assertThat(answer.status()).isEqualTo(400);
            assertThat(answer.detail()).contains("stands for nobody here");
        }
    }

    @Nested
    class Roles {
        @Test
        void readersChangeNothing() {
            Requests yara = person("yara", "reader");
            show("tide", "everybody");
            assertThat(yara.delete("/api/v1/repositories/tide").status()).isEqualTo(403);
            assertThat(yara.post("/api/v1/repositories/tide/refresh", "application/json", "")
                            .status())
                    .isEqualTo(403);
            assertThat(yara.put("/api/v1/exclusion-sets/mine", "{}").status()).isEqualTo(403);
            assertThat(yara.put("/api/v1/repositories/tide/viewers", new Viewers(List.of()))
                            .status())
                    .isEqualTo(403);
            assertThat(yara.get("/api/v1/repositories/tide/viewers").status()).isEqualTo(403);
            assertThat(yara.get("/api/v1/accounts").status()).isEqualTo(403);
            assertThat(yara.get("/api/v1/records-of-change").status()).isEqualTo(403);
            assertThat(yara.get("/actuator/metrics").status()).isEqualTo(403);
            assertThat(hits(yara)).isPositive();
        }

        @Test
        void theLastAdministratorStays() {
            assertThat(administrator.delete("/api/v1/accounts/ada").status()).isEqualTo(409);
            assertThat(administrator
                            .put("/api/v1/accounts/ada", new NewAccount(null, null, "reader", null, null))
                            .status())
                    .isEqualTo(409);
        }

        @Test
        void nobodyAsksForEverything() {
            Path folder = data.resolveSibling("small");
            try (TestService small = TestService.start(
                    Database.shared().create(),
                    folder,
                    "--oddbeacon.accounts=true",
                    "--oddbeacon.quotas.requests=40")) {
                Requests ada = small.browser(first(small, folder));
                List<Integer> statuses = new ArrayList<>();
                for (int i = 0; i < 20; i++) {
                    statuses.add(ada.get("/api/v1/status").status());
                }
                assertThat(statuses.subList(0, 10)).containsOnly(200);
                assertThat(statuses.getLast()).isEqualTo(429);
                assertThat(small.get("/api/v1/session").status())
                        .as("others go on")
                        .isEqualTo(200);
            }
        }

        @Test
        void whatIsDoneIsRecorded() {
            account("zoe", "reader");
            signIn("zoe", PASSWORD);
            Answer changes = administrator.get("/api/v1/records-of-change", "account", "zoe");
            assertThat(changes.json().path("changes").path(0).path("action").asString())
                    .isEqualTo("sign-in");
            assertThat(changes.json().path("changes").path(0).path("address").asString())
                    .isEqualTo("127.0.0.1");
            Answer file = administrator.get("/api/v1/records-of-change/file", "account", "zoe");
            assertThat(file.body().lines())
                    .hasSize(changes.json().path("changes").size())
                    .allSatisfy(line -> assertThat(line).startsWith("{\"id\":").contains("\"account\":\"zoe\""));
            String today = LocalDate.now(ZoneOffset.UTC).toString();
            assertThat(administrator
                            .get("/api/v1/records-of-change", "account", "zoe", "since", today, "until", today)
                            .body())
                    .isEqualTo(changes.body());
            assertThat(administrator
                            .get("/api/v1/records-of-change/file", "until", "2020-01-01")
                            .body())
                    .isEmpty();
            assertThat(administrator
                            .get("/api/v1/records-of-change", "since", "yesterday")
                            .detail())
                    .isEqualTo("since is a day such as 2026-05-01.");
            Answer added = administrator.get("/api/v1/records-of-change", "action", "account-added");
            assertThat(added.json()
                            .path("changes")
                            .valueStream()
                            .map(change -> change.path("subject").asString()))
                    .contains("zoe: reader");
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "\u0430da", "a da", "-ada", "ada\u200b", "person:ada"})
    void namesThatLookLikeOthersAreRefused(String name) {
        Answer answer = administrator.post("/api/v1/accounts", new NewAccount(name, null, null, null, PASSWORD));
        assertThat(answer.status()).isEqualTo(400);
        assertThat(administrator
                        .post("/api/v1/accounts", new NewAccount("ADA", null, null, null, PASSWORD))
                        .status())
                .as("capitals are small letters")
                .isEqualTo(409);
    }

    @Nested
    class Tokens {
        private String token(Requests who, String role) {
            Answer issued = who.post("/api/v1/tokens", new NewToken("pipeline", role, 30, null));
            assertThat(issued.status()).as(issued.body()).isEqualTo(201);
            return issued.json().path("token").asString();
        }

        private Requests program(String token) {
            return service.with(Map.of("Authorization", "Bearer " + token));
        }

        @Test
        void doWhatTheirRoleMayForTheirAccount() {
            show("tide", "everybody");
            Requests program = program(token(administrator, "reader"));
            assertThat(hits(program)).isPositive();
            assertThat(program.get("/api/v1/accounts").status()).isEqualTo(403);
            assertThat(program.post("/api/v1/tokens", new NewToken("more", null, null, null))
                            .status())
                    .isEqualTo(400);
            assertThat(program.get("/api/v1/session")
                            .json()
                            .path("person")
                            .path("token")
                            .asString())
                    .isEqualTo("pipeline");
            assertThat(repositories(program))
                    .as("an administrator's reader sees what readers do")
                    .contains("tide");
        }

        @Test
        void areTakenBackAtOnce() {
            Requests bo = person("bo", "reader");
            String token = token(bo, "reader");
            assertThat(program(token).get("/api/v1/repositories").status()).isEqualTo(200);
            Answer all = bo.get("/api/v1/tokens");
            assertThat(all.body()).doesNotContain(token);
            assertThat(bo.delete("/api/v1/tokens/"
                                    + all.json().path(0).path("id").asLong())
                            .status())
                    .isEqualTo(204);
            Answer refused = program(token).get("/api/v1/repositories");
            assertThat(refused.status()).isEqualTo(401);
            assertThat(refused.detail()).contains("taken back");
        }

        @Test
        void endWithTheirAccount() {
            Requests cleo = person("cleo", "reader");
            Requests program = program(token(cleo, "reader"));
            administrator.delete("/api/v1/accounts/cleo");
            assertThat(program.get("/api/v1/repositories").status()).isEqualTo(401);
        }

        @Test
        void mayNoMoreThanTheirAccount() {
            Requests dora = person("dora", "reader");
            assertThat(dora.post("/api/v1/tokens", new NewToken("x", "maintainer", 1, null))
                            .status())
                    .isEqualTo(400);
            assertThat(dora.post("/api/v1/tokens", new NewToken("x", null, 4_000, null))
                            .status())
                    .isEqualTo(400);
        }
    }

    @Nested
    class Programs {
        private Answer begin() {
            return service.post(
                    "/api/v1/session/device", "application/x-www-form-urlencoded", "client_id=oddbeacon+on+pier+7");
        }

        private Answer ask(String deviceCode) {
            return service.post(
                    "/api/v1/session/device/token",
                    "application/x-www-form-urlencoded",
                    "grant_type=urn:ietf:params:oauth:grant-type:device_code&device_code=" + deviceCode);
        }

        @Test
        void areAllowedInABrowser() {
            Requests ella = person("ella", "maintainer");
            JsonNode codes = begin().json();
            String device = codes.path("device_code").asString();
            String user = codes.path("user_code").asString();
            assertThat(user).matches("[A-Z]{4}-[A-Z]{4}");
            assertThat(codes.path("verification_uri_complete").asString())
                    .isEqualTo(service.address() + "/device?code=" + user);
            assertThat(ask(device).json().path("error").asString()).isEqualTo("authorization_pending");
            assertThat(ask(device).json().path("error").asString()).isEqualTo("slow_down");

            Answer waiting = ella.post("/api/v1/session/device/decision", new DeviceDecision(user, null));
            assertThat(waiting.json().path("program").asString()).isEqualTo("oddbeacon on pier 7");
            String typed = user.toLowerCase(Locale.ROOT).replace("-", " ");
            assertThat(ella.post("/api/v1/session/device/decision", new DeviceDecision(typed, true))
                            .status())
                    .isEqualTo(200);
            assertThat(ella.post("/api/v1/session/device/decision", new DeviceDecision(user, true))
                            .status())
                    .as("the code is good once")
                    .isEqualTo(404);
            String token = ask(device).json().path("access_token").asString();
            Requests program = service.with(Map.of("Authorization", "Bearer " + token));
            assertThat(program.get("/api/v1/session")
                            .json()
                            .path("person")
                            .path("role")
                            .asString())
                    .isEqualTo("maintainer");
            assertThat(ask(device).json().path("error").asString())
                    .as("it is given once")
                    .isEqualTo("expired_token");
            assertThat(program.delete("/api/v1/session").status()).isEqualTo(204);
            assertThat(program.get("/api/v1/repositories").status()).isEqualTo(401);
        }

        @Test
        void areRefusedInABrowser() {
            Requests finn = person("finn", "reader");
            JsonNode codes = begin().json();
            finn.post(
                    "/api/v1/session/device/decision",
                    new DeviceDecision(codes.path("user_code").asString(), false));
            assertThat(ask(codes.path("device_code").asString())
                            .json()
                            .path("error")
                            .asString())
                    .isEqualTo("access_denied");
        }

        @Test
        void allowNoOtherProgram() {
            Requests gro = person("gro", "reader");
            String token = gro.post("/api/v1/tokens", new NewToken("x", null, 1, null))
                    .json()
                    .path("token")
                    .asString();
            Answer answer = service.with(Map.of("Authorization", "Bearer " + token))
                    .post(
                            "/api/v1/session/device/decision",
                            new DeviceDecision(begin().json().path("user_code").asString(), true));
            assertThat(answer.status()).isEqualTo(400);
        }
    }

    @Test
    void withoutAccountsNobodySignsIn(@TempDir Path folder) {
        try (TestService open = TestService.start(Database.shared().create(), folder)) {
            assertThat(open.get("/api/v1/session").json().path("accounts").asBoolean())
                    .isFalse();
            assertThat(open.with(Map.of())
                            .post("/api/v1/session", new SignIn("ada", PASSWORD))
                            .status())
                    .isEqualTo(404);
            assertThat(open.get("/api/v1/accounts").status()).isEqualTo(200);
            assertThat(folder.resolve("first-sign-in")).doesNotExist();
        }
    }
}
