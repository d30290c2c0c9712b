package dev.oddbeacon.server.credentials;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.NewCredential;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.server.FilesBelow;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import dev.oddbeacon.server.TestTeam;
import dev.oddbeacon.server.records.CredentialRecords;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Private repositories of a real host, over ssh with a key and over http with a token. */
class CredentialsTest {
    private static TestTeam team;
    private static PrivateHost host;
    private static Requests keeper;
    private static Path data;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        host = new PrivateHost(Files.createDirectories(folder.resolve("host")));
        data = folder.resolve("data");
        team = TestTeam.start(folder, "data", "--oddbeacon.locations.hosts=127.0.0.1");
        keeper = team.person("keeper", "maintainer");
    }

    @AfterAll
    static void stop() throws IOException {
        team.close();
        host.close();
    }

    private static void register(String name, String location) {
        Answer added = keeper.post(
                "/api/v1/repositories",
                new NewRepository(name, null, location, List.of(), List.of(), List.of("everybody")));
        assertThat(added.status()).as(added.body()).isEqualTo(201);
    }

    private static void awaitState(String name, String state) throws InterruptedException {
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (true) {
            JsonNode one = keeper.get("/api/v1/repositories/" + name).json();
            if (one.path("state").asString().equals(state)) {
                return;
            }
            assertThat(System.nanoTime()).as(one.toString()).isLessThan(deadline);
            Thread.sleep(50);
        }
    }

    private static List<String> offered() {
        Answer answer = keeper.post(
                "/api/v1/credentials/host-keys", "application/x-www-form-urlencoded", "host=" + host.sshHost());
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        List<String> keys = new ArrayList<>();
        answer.json().path("keys").forEach(key -> {
            assertThat(key.path("fingerprint").asString()).isEqualTo(host.hostFingerprint());
            keys.add(key.path("type").asString() + " " + key.path("key").asString());
        });
        assertThat(keys).isNotEmpty();
        return keys;
    }

    private static Answer give(String atHost, String kind, String user, String secret, List<String> hostKeys) {
        return keeper.put("/api/v1/credentials", new NewCredential(atHost, kind, user, secret, hostKeys));
    }

    @Test
    void aKeyOpensAHostThatIsKnownByItsKey() throws Exception {
        host.add("private");
        register("private", host.sshLocation("private"));
        awaitState("private", "failed");
        assertThat(keeper.get("/api/v1/repositories/private")
                        .json()
                        .path("problem")
                        .asString())
                .contains("its host needs a credential");

        String key = host.letIn("");
        Answer given = give(host.sshHost(), "ssh-key", null, key, offered());
        assertThat(given.status()).as(given.body()).isEqualTo(200);
        assertThat(given.json().path("fingerprint").asString()).startsWith("SHA256:");
        awaitState("private", "ready"); // by itself
        assertNothingOfItIsRead(key.lines().skip(1).findFirst().orElseThrow());

        host.changeHostKey();
        keeper.post("/api/v1/repositories/private/refresh", "application/json", "");
        awaitState("private", "failed");
        give(host.sshHost(), "ssh-key", null, key, offered());
        awaitState("private", "ready");

        String another = host.letIn("");
        give(host.sshHost(), "ssh-key", null, another, offered());
        keeper.post("/api/v1/repositories/private/refresh", "application/json", "");
        awaitState("private", "ready");
        long id = 0;
        for (JsonNode one : keeper.get("/api/v1/credentials").json()) {
            id = one.path("kind").asString().equals("ssh-key") ? one.path("id").asLong() : id;
        }
        assertThat(keeper.delete("/api/v1/credentials/" + id).status()).isEqualTo(204);
        keeper.post("/api/v1/repositories/private/refresh", "application/json", "");
        awaitState("private", "failed");
    }

    /** Neither over HTTP nor in the records, nor in any file of the data folder. */
    private static void assertNothingOfItIsRead(String secret) throws IOException {
        for (Requests who : List.of(keeper, team.administrator())) {
            assertThat(who.get("/api/v1/credentials").body())
                    .contains("127.0.0.1")
                    .doesNotContain(secret);
        }
        assertThat(team.administrator().get("/api/v1/records-of-change").body()).doesNotContain(secret);
        team.service()
                .bean(CredentialRecords.class)
                .findAll()
                .forEach(record -> assertThat(new String(record.secret(), StandardCharsets.ISO_8859_1))
                        .doesNotContain(secret));
        assertThat(FilesBelow.holding(data, secret)).isEmpty();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(data.resolve("secret-key"))))
                .isEqualTo("rw-------");
    }

    @Test
    void aTokenIsShownToItsHostAndReplacedWithoutAnInterruption() throws Exception {
        register("web", host.add("web"));
        awaitState("web", "failed");
        Answer given = give(host.webHost(), "token", PrivateHost.USER, "the first token", null);
        assertThat(given.status()).as(given.body()).isEqualTo(200);
        awaitState("web", "ready");
        assertNothingOfItIsRead("the first token");
        host.changeToken("the second token");
        give(host.webHost(), "token", PrivateHost.USER, "the second token", null);
        keeper.post("/api/v1/repositories/web/refresh", "application/json", "");
        awaitState("web", "ready");
        assertThat(host.headers()).contains("null"); // asked first, and shown nothing unasked
    }

    @ParameterizedTest
    @CsvSource({
        "git.example, password, x, , 'an ssh-key or a token'",
        "'', token, x, , is not a host",
        "git.example/x, token, x, , is not a host",
        "user@git.example, token, x, , is not a host",
        "-oProxyCommand=x, ssh-key, x, , is not a host",
        "git.example, token, '', , The secret is missing",
        "git.example, ssh-key, not a key, ssh-ed25519 AAAA, This is not a private key",
    })
    void whatCannotBeTakenIsRefused(String atHost, String kind, String secret, String hostKey, String said) {
        int before = keeper.get("/api/v1/credentials").json().size();
        Answer answer = give(atHost, kind, null, secret, hostKey == null ? null : List.of(hostKey));
        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.detail()).contains(said);
        assertThat(keeper.get("/api/v1/credentials").json().size()).isEqualTo(before);
    }

    @Test
    void keysWithAPassphraseAndUnknownHostsAreRefused() throws IOException {
        assertThat(give("git.example", "ssh-key", null, host.letIn("secret"), List.of())
                        .detail())
                .contains("without a passphrase");
        String key = host.letIn("");
        assertThat(give("git.example", "ssh-key", null, key, List.of()).detail())
                .contains("compare the fingerprints");
        assertThat(give("git.example", "ssh-key", null, key, List.of("ssh-ed25519 AAAA"))
                        .detail())
                .contains("is not a key of a host");
    }

    @Test
    void hostsThatMustNotBeGoneToOfferNothing() {
        Answer answer =
                keeper.post("/api/v1/credentials/host-keys", "application/x-www-form-urlencoded", "host=127.0.0.2");
        assertThat(answer.body()).isEqualTo("{\"host\":\"127.0.0.2\",\"keys\":[]}");
    }

    @Test
    void readersHaveNothingToDoWithThem() {
        Requests reader = team.person("reader", "reader");
        assertThat(reader.get("/api/v1/credentials").status()).isEqualTo(403);
        assertThat(reader.put("/api/v1/credentials", new NewCredential("x", "token", null, "y", null))
                        .status())
                .isEqualTo(403);
    }
}
