package dev.oddbeacon.server;

import dev.oddbeacon.api.FirstAdministrator;
import dev.oddbeacon.api.NewAccount;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.api.SignIn;
import dev.oddbeacon.api.Viewers;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.TestService.Requests;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** A service where people sign in, with its first administrator. */
public final class TestTeam implements AutoCloseable {
    public static final String PASSWORD = "seven grey gulls";

    private final TestService service;
    private final Requests administrator;

    private TestTeam(TestService service, Requests administrator) {
        this.service = service;
        this.administrator = administrator;
    }

    /** @param folder below which repositories may lie; the data folder is made in it */
    public static TestTeam start(Path folder, String data, String... more) throws IOException {
        List<String> options =
                new ArrayList<>(List.of("--oddbeacon.accounts=true", "--oddbeacon.locations.roots=" + folder));
        options.addAll(List.of(more));
        TestService service =
                TestService.start(Database.shared().create(), folder.resolve(data), options.toArray(String[]::new));
        String secret = Files.readString(folder.resolve(data).resolve("first-sign-in"));
        Answer first = service.with(Map.of())
                .post("/api/v1/session/first", new FirstAdministrator(secret, "ada", "Ada Quill", PASSWORD));
        return new TestTeam(service, service.browser(expect(200, first).cookie().orElseThrow()));
    }

    private static Answer expect(int status, Answer answer) {
        if (answer.status() != status) {
            throw new IllegalStateException(answer.status() + " " + answer.body());
        }
        return answer;
    }

    public TestService service() {
        return service;
    }

    public Requests administrator() {
        return administrator;
    }

    /** Somebody new, signed in. */
    public Requests person(String name, String role, String... teams) {
        expect(201, administrator.post("/api/v1/accounts", new NewAccount(name, null, role, List.of(teams), PASSWORD)));
        return service.browser(expect(200, service.with(Map.of()).post("/api/v1/session", new SignIn(name, PASSWORD)))
                .cookie()
                .orElseThrow());
    }

    /** A program with a token of somebody. @param repositories the only ones that it sees; none for all */
    public Requests program(Requests who, String role, String... repositories) {
        return program(expect(201, who.post("/api/v1/tokens", new NewToken("tests", role, 30, List.of(repositories))))
                .json()
                .path("token")
                .asString());
    }

    public Requests program(String token) {
        return service.with(Map.of("Authorization", "Bearer " + token));
    }

    /** Registers a repository, and waits until it can be searched. */
    public void add(String name, Path location, String... viewers) {
        expect(
                201,
                administrator.post(
                        "/api/v1/repositories",
                        new NewRepository(name, null, location.toString(), List.of(), List.of(), List.of(viewers))));
        awaitReady(name);
    }

    public void awaitReady(String name) {
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (!administrator
                .get("/api/v1/repositories/" + name)
                .json()
                .path("state")
                .asString()
                .equals("ready")) {
            if (System.nanoTime() > deadline) {
                throw new IllegalStateException(name + " does not get ready");
            }
            Thread.onSpinWait();
        }
    }

    public void show(String repository, String... viewers) {
        expect(
                200,
                administrator.put("/api/v1/repositories/" + repository + "/viewers", new Viewers(List.of(viewers))));
    }

    /** Names of the repositories that somebody sees. */
    public static List<String> seenBy(Requests who) {
        List<String> names = new ArrayList<>();
        expect(200, who.get("/api/v1/repositories"))
                .json()
                .forEach(one -> names.add(one.path("name").asString()));
        return names;
    }

    @Override
    public void close() {
        service.close();
    }
}
