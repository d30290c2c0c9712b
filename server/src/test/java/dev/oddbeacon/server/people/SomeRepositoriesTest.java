package dev.oddbeacon.server.people;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.DeviceDecision;
import dev.oddbeacon.api.DeviceGrant;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Those who see some repositories alone: tokens for them, and guests. */
class SomeRepositoriesTest {
    private static TestTeam team;
    private static Requests bo;
    private static Requests keeper;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        team = TestTeam.start(folder, "data", "--oddbeacon.guests=true");
        for (String name : List.of("tide", "hull", "pier")) {
            Path path = TestRepository.create(folder.resolve(name))
                    .write(name + ".txt", "low tide\n")
                    .commit("Gauge of " + name)
                    .path();
            team.add(name, path);
        }
        bo = team.person("bo", "reader", "crew");
        keeper = team.person("keeper", "maintainer", "crew");
    }

    @AfterAll
    static void stop() {
        team.close();
    }

    @AfterEach
    void hide() {
        team.show("tide", "everybody");
        team.show("hull", "team:crew");
        team.show("pier");
    }

    private static int hits(Requests who) {
        return who.get("/api/v1/search/lines", "q", "low", "counts", "exact")
                .json()
                .path("counts")
                .path("hits")
                .asInt();
    }

    private static int tokens(Requests who) {
        return who.get("/api/v1/tokens").json().size();
    }

    @Test
    void whoSeesARepositoryIsListedWithTheReasons() {
        hide();
        team.show("hull", "team:crew", "person:bo");
        assertThat(keeper.get("/api/v1/repositories/hull/viewers").body())
                .isEqualTo("{\"visibleTo\":[\"person:bo\",\"team:crew\"],\"people\":["
                        + "{\"name\":\"ada\",\"displayName\":\"Ada Quill\",\"why\":[\"administrator\"]},"
                        + "{\"name\":\"bo\",\"displayName\":\"bo\",\"why\":[\"team:crew\",\"person:bo\"]},"
                        + "{\"name\":\"keeper\",\"displayName\":\"keeper\",\"why\":[\"team:crew\"]}]}");
    }

    /** The answer tells what was done, also to somebody who sees nothing of it any more. */
    @Test
    void aMaintainerMayHideARepositoryFromThemselves() {
        hide();
        Answer answer = keeper.put("/api/v1/repositories/hull/viewers", "{\"visibleTo\":[\"person:bo\"]}");
        assertThat(answer.status()).isEqualTo(200);
        assertThat(answer.json().path("people")).hasSize(2);
        assertThat(keeper.get("/api/v1/repositories/hull/viewers").status()).isEqualTo(404);
    }

    @Nested
    class Tokens {
        @Test
        void seeThoseAlone() {
            hide();
            Requests program = team.program(bo, "reader", "hull");
            assertThat(TestTeam.seenBy(bo)).containsExactly("hull", "tide");
            assertThat(TestTeam.seenBy(program)).containsExactly("hull");
            assertThat(hits(program)).isEqualTo(1);
            assertThat(program.get("/api/v1/files/tide/main/tide.txt").status()).isEqualTo(404);
            assertThat(bo.get("/api/v1/tokens")
                            .json()
                            .path(0)
                            .path("repositories")
                            .toString())
                    .isEqualTo("[\"hull\"]");
            team.show("hull");
            assertThat(TestTeam.seenBy(program)).as("no more than its account").isEmpty();
        }

        @Test
        void ofAnAdministratorSeeWhatTheyName() {
            hide();
            Requests program = team.program(team.administrator(), "reader", "pier");
            assertThat(TestTeam.seenBy(program)).containsExactly("pier");
            assertThat(team.administrator()
                            .post("/api/v1/tokens", new NewToken("x", "administrator", 1, List.of("pier")))
                            .status())
                    .isEqualTo(400);
        }

        @Test
        void areNotMadeForOthers() {
            hide();
            int before = tokens(bo);
            Answer answer = bo.post("/api/v1/tokens", new NewToken("x", "reader", 1, List.of("tide", "pier")));
            assertThat(answer.status()).isEqualTo(400);
            assertThat(answer.detail()).isEqualTo("There is no repository pier. Name some that you see.");
            assertThat(bo.post("/api/v1/tokens", new NewToken("x", "reader", 1, List.of("nowhere")))
                            .detail())
                    .isEqualTo("There is no repository nowhere. Name some that you see.");
            assertThat(tokens(bo)).isEqualTo(before);
        }

        @ParameterizedTest
        @CsvSource({
            "POST, /api/v1/repositories/hull/refresh, 202",
            "POST, /api/v1/repositories/tide/refresh, 404",
            "PUT, /api/v1/repositories/hull/viewers, 403",
            "DELETE, /api/v1/repositories/hull, 403",
            "POST, /api/v1/repositories, 403",
            "POST, /api/v1/exclusion-sets, 403",
            "GET, /api/v1/teams, 403",
            "GET, /api/v1/accounts, 403",
        })
        void ofAMaintainerMayHaveThemRefreshedAndNothingElse(String method, String path, int status) {
            hide();
            Requests program = team.program(keeper, "maintainer", "hull");
            Answer answer = switch (method) {
                case "POST" -> program.post(path, Map.of());
                case "PUT" -> program.put(path, Map.of());
                case "DELETE" -> program.delete(path);
                default -> program.get(path);
            };
            assertThat(answer.status()).as(answer.body()).isEqualTo(status);
            assertThat(TestTeam.seenBy(keeper)).contains("hull");
        }
    }

    /** A token that a program asks for, and somebody allows in a browser. */
    @Nested
    class AskedFor {
        private Answer begin(String wanted) {
            return team.service()
                    .post(
                            "/api/v1/session/device",
                            "application/x-www-form-urlencoded",
                            "client_id=oddbeacon+on+pier+7&" + wanted);
        }

        private Answer ask(Answer begun) {
            return team.service()
                    .post(
                            "/api/v1/session/device/token",
                            "application/x-www-form-urlencoded",
                            "grant_type=" + DeviceGrant.GRANT_TYPE + "&device_code="
                                    + begun.json().path("device_code").asString());
        }

        private Answer decide(Requests who, Answer begun, Boolean allow) {
            return who.post(
                    "/api/v1/session/device/decision",
                    new DeviceDecision(begun.json().path("user_code").asString(), allow));
        }

        @Test
        void isShownAndMadeAsItWasAskedFor() {
            hide();
            Answer begun = begin("token=Nightly+report&role=reader&days=7&repository=hull&repository=tide");
            assertThat(decide(bo, begun, null).json().path("token").toString())
                    .isEqualTo("{\"name\":\"Nightly report\",\"role\":\"reader\",\"days\":7,"
                            + "\"repositories\":[\"hull\",\"tide\"]}");
            assertThat(decide(bo, begun, true).status()).isEqualTo(200);
            Answer given = ask(begun);
            assertThat(given.json().path("expires_in").asInt()).isBetween(7 * 86_400 - 60, 7 * 86_400);
            Requests program = team.program(given.json().path("access_token").asString());
            assertThat(TestTeam.seenBy(program)).containsExactly("hull", "tide");
            assertThat(program.get("/api/v1/session")
                            .json()
                            .path("person")
                            .path("token")
                            .asString())
                    .isEqualTo("Nightly report");
        }

        @Test
        void isNotMoreThanWhoeverAllowsItMayHave() {
            hide();
            Answer begun = begin("token=x&role=maintainer");
            Answer refused = decide(bo, begun, true);
            assertThat(refused.status()).isEqualTo(400);
            assertThat(refused.detail()).contains("no more than its account");
            assertThat(ask(begun).json().path("error").asString()).isEqualTo("authorization_pending");
            assertThat(decide(keeper, begun, true).status()).isEqualTo(200);
            assertThat(ask(begun).json().path("access_token").asString()).startsWith("oddbeacon_");
            assertThat(decide(bo, begin("token=x&repository=pier"), true).detail())
                    .isEqualTo("There is no repository pier. Name some that you see.");
        }
    }

    @Nested
    class Guests {
        private final Requests guest = team.service().with(Map.of());

        @Test
        void searchWhatIsForAnybodyAndNothingElse() {
            team.show("tide", "anybody");
            assertThat(TestTeam.seenBy(guest)).containsExactly("tide");
            assertThat(hits(guest)).isEqualTo(1);
            assertThat(hits(bo)).as("tide and hull").isEqualTo(2);
            team.show("tide", "everybody");
            assertThat(TestTeam.seenBy(guest)).isEmpty();
            assertThat(hits(guest)).isZero();
        }

        @ParameterizedTest
        @CsvSource({
            "GET, /api/v1/tokens",
            "GET, /api/v1/accounts",
            "GET, /api/v1/records-of-change",
            "GET, /api/v1/teams",
            "DELETE, /api/v1/session/all",
            "POST, /api/v1/repositories",
            "POST, /api/v1/repositories/tide/refresh",
            "POST, /api/v1/exclusion-sets",
            "POST, /api/v1/session/device/decision",
        })
        void haveNothingOfTheirOwnAndChangeNothing(String method, String path) {
            team.show("tide", "anybody");
            Answer answer = switch (method) {
                case "POST" -> guest.post(path, Map.of());
                case "DELETE" -> guest.delete(path);
                default -> guest.get(path);
            };
            assertThat(answer.status()).as(answer.body()).isEqualTo(401);
            assertThat(answer.detail()).startsWith("Sign in first");
        }

        @Test
        void areToldOf() {
            assertThat(guest.get("/api/v1/session").body())
                    .isEqualTo("{\"accounts\":true,\"guests\":true,\"person\":null,\"issuer\":null}");
        }

        @Test
        void areLetInOnlyWhereItIsSet(@TempDir Path folder) throws IOException {
            try (TestTeam closed = TestTeam.start(folder, "data")) {
                TestService service = closed.service();
                assertThat(service.get("/api/v1/repositories").status()).isEqualTo(401);
                closed.add(
                        "tide",
                        TestRepository.create(folder.resolve("tide"))
                                .write("a.txt", "low\n")
                                .commit("Gauge")
                                .path());
                Answer refused = closed.administrator()
                        .put("/api/v1/repositories/tide/viewers", "{\"visibleTo\":[\"anybody\"]}");
                assertThat(refused.status()).isEqualTo(400);
                assertThat(refused.detail()).contains("oddbeacon.guests");
            }
        }
    }
}
