package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.openqa.selenium.By;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** People sign in through an issuer of OpenID Connect, as a file of settings says. */
class IssuerTest extends InBrowser {
    private static final Duration LONG = Duration.ofSeconds(60);

    @TempDir
    static Path folder;

    private static StandInIssuer issuer;
    private static Launched service;
    private static String administrator;

    @BeforeAll
    static void begin() throws IOException, InterruptedException {
        int port = StandInIssuer.freePort();
        issuer = StandInIssuer.start("http://127.0.0.1:" + port + "/sign-in/answer");
        Path settings = folder.resolve("settings.yaml");
        Files.writeString(settings, """
                oddbeacon:
                  port: %d
                  accounts: true
                  issuer:
                    address: %s
                    label: Quillhaven accounts
                    client: %s
                    secret: %s
                    groups: ["*-room", "harbour-*"]
                    maintainers: [keepers]
                    every: 1s
                    sessions-last: 15s
                """.formatted(port, issuer.address(), StandInIssuer.CLIENT, StandInIssuer.SECRET));
        service = Launched.start("serve", folder.resolve("data"), "--settings", settings.toString());
        Person ada = new Person();
        String secret = service.output().replaceAll("(?s).*/first#(\\S+).*", "$1");
        HttpResponse<String> first = ada.send(HttpRequest.newBuilder(at("/api/v1/session/first"))
                .header("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(
                        "{\"secret\":\"" + secret + "\",\"name\":\"ada\",\"password\":\"seven grey gulls\"}")));
        assertThat(first.statusCode()).as(first.body()).isEqualTo(200);
        administrator = first.headers().firstValue("Set-Cookie").orElseThrow().replaceAll(";.*", "");
    }

    @AfterAll
    static void end() {
        service.close();
        issuer.close();
    }

    @AfterEach
    void mend() {
        StandInIssuer.fault(StandInIssuer.Fault.NONE);
        browser.manage().deleteAllCookies();
    }

    private static URI at(String path) throws IOException {
        return URI.create(service.address() + path);
    }

    /** Somebody with a browser of their own. */
    private static final class Person {
        private final CookieManager cookies = new CookieManager();
        private final HttpClient client = HttpClient.newBuilder()
                .cookieHandler(cookies)
                .followRedirects(HttpClient.Redirect.NEVER)
                .build();

        HttpResponse<String> send(HttpRequest.Builder request) throws IOException, InterruptedException {
            return client.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }

        HttpResponse<String> get(URI address) throws IOException, InterruptedException {
            return send(HttpRequest.newBuilder(address));
        }

        /** Goes to the issuer, signs in there, and comes back. @return where the service sends them then */
        String signIn(String name, String back) throws IOException, InterruptedException {
            String query = back.isEmpty() ? "" : "?back=" + URLEncoder.encode(back, StandardCharsets.UTF_8);
            URI wanted = location(get(at("/sign-in/issuer" + query)));
            get(wanted); // which leads to the form
            send(HttpRequest.newBuilder(URI.create(issuer.address() + "/login"))
                    .header("Content-Type", "application/x-www-form-urlencoded")
                    .POST(HttpRequest.BodyPublishers.ofString("username=" + name + "&password="
                            + URLEncoder.encode(StandInIssuer.PASSWORD, StandardCharsets.UTF_8))));
            URI answer = location(get(wanted));
            assertThat(answer.toString()).startsWith(service.address() + "/sign-in/answer?");
            return location(get(answer)).toString();
        }

        private static URI location(HttpResponse<String> response) {
            return response.uri()
                    .resolve(response.headers()
                            .firstValue("Location")
                            .orElseThrow(() -> new AssertionError(response.statusCode() + " " + response.body())));
        }

        JsonNode session() {
            try {
                return JsonMapper.shared()
                        .readTree(get(at("/api/v1/session")).body())
                        .path("person");
            } catch (IOException e) {
                throw new IllegalStateException(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException(e);
            }
        }

        String teams() {
            return session().path("teams").toString();
        }
    }

    private static void await(String what, BooleanSupplier holds) throws InterruptedException {
        long deadline = System.nanoTime() + LONG.toNanos();
        while (!holds.getAsBoolean()) {
            assertThat(System.nanoTime()).as(what).isLessThan(deadline);
            Thread.sleep(200);
        }
    }

    private static void asAdministrator(String method, String path, String body)
            throws IOException, InterruptedException {
        HttpResponse<String> response = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(at(path))
                                .header("Cookie", administrator)
                                .header("Origin", service.address())
                                .header("Content-Type", "application/json")
                                .method(method, HttpRequest.BodyPublishers.ofString(body))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertThat(response.statusCode()).as(response.body()).isBetween(200, 299);
    }

    @Test
    void theConsoleLeadsThereAndBackToThePageThatWasAskedFor() throws IOException {
        StandInIssuer.put("edda", "Harbour-Office", "engine-room", "choir");
        browser.get(at("/types?x=1").toString());
        assertThat(find("[data-part=issuer]").getText()).isEqualTo("Sign in with Quillhaven accounts");
        Accessibility.assertThatRulesAreFollowed(browser);
        find("[data-part=issuer]").click();
        find("input[name=username]").sendKeys("edda");
        find("input[name=password]").sendKeys(StandInIssuer.PASSWORD);
        browser.findElement(By.cssSelector("button")).click();
        waitForText("header a[href='/account']", "Edda Example");
        assertThat(browser.getCurrentUrl()).isEqualTo(at("/types?x=1").toString());
        browser.get(at("/account").toString());
        waitForText("main", "engine-room, harbour-office");
        assertThat(find("main").getText()).doesNotContain("choir");
    }

    @Test
    void whatIsWrongIsSaidInTheConsole() throws IOException {
        browser.get(at("/sign-in?problem=name-taken&back=/files").toString());
        waitForText("main [role=alert]", "An administrator can take its password off");
        assertThat(find("[data-part=issuer]").getDomAttribute("href")).isEqualTo("/sign-in/issuer?back=%2Ffiles");
        Accessibility.assertThatRulesAreFollowed(browser);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "//elsewhere.example/",
                "https://elsewhere.example/",
                "/\\elsewhere.example/",
                "/%0d%0aSet-Cookie: x=y\n",
                "/api/v1/session",
                "/sign-in/issuer"
            })
    void nobodyIsSentElsewhereAfterSigningIn(String back) throws Exception {
        StandInIssuer.put("ola");
        assertThat(new Person().signIn("ola", back)).isEqualTo(service.address() + "/");
    }

    @ParameterizedTest
    @CsvSource({"WRONG_AUDIENCE, answer-wrong", "EXPIRED, answer-wrong", "OTHER_NONCE, answer-wrong"})
    void aTokenThatIsNotForThisSignInIsNotTaken(StandInIssuer.Fault fault, String problem) throws Exception {
        StandInIssuer.put("ingrid");
        StandInIssuer.fault(fault);
        Person ingrid = new Person();
        assertThat(ingrid.signIn("ingrid", "/files"))
                .isEqualTo(service.address() + "/sign-in?problem=" + problem + "&back=%2Ffiles");
        assertThat(ingrid.session().isNull()).isTrue();
    }

    @Test
    void aChangedKeyIsFollowed() throws Exception {
        StandInIssuer.put("tove");
        assertThat(new Person().signIn("tove", "/files")).endsWith("/files");
        StandInIssuer.changeKey();
        assertThat(new Person().signIn("tove", "/files")).endsWith("/files");
    }

    @Test
    void anAnswerIsGoodInTheBrowserThatAskedAndOnce() throws Exception {
        StandInIssuer.put("runa");
        Person runa = new Person();
        URI wanted = Person.location(runa.get(at("/sign-in/issuer")));
        runa.get(wanted);
        runa.send(HttpRequest.newBuilder(URI.create(issuer.address() + "/login"))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString("username=runa&password="
                        + URLEncoder.encode(StandInIssuer.PASSWORD, StandardCharsets.UTF_8))));
        URI answer = Person.location(runa.get(wanted));
        Person mallory = new Person();
        assertThat(Person.location(mallory.get(answer)).toString()).contains("problem=stale");
        assertThat(mallory.session().isNull()).isTrue();
        assertThat(Person.location(runa.get(answer)).toString()).isEqualTo(service.address() + "/");
        assertThat(Person.location(runa.get(answer)).toString()).contains("problem=stale");
        assertThat(runa.session().path("name").asString()).isEqualTo("runa");
    }

    @Test
    void groupsAreReadAgainAndWhoeverLeavesIsSignedOut() throws Exception {
        StandInIssuer.put("jonas", "engine-room");
        Person jonas = new Person();
        jonas.signIn("jonas", "");
        assertThat(jonas.session().path("displayName").asString()).isEqualTo("Jonas Example");
        assertThat(jonas.teams()).isEqualTo("[\"engine-room\"]");
        StandInIssuer.put("jonas", "harbour-office", "keepers");
        await("teams follow", () -> jonas.teams().equals("[\"harbour-office\"]"));
        assertThat(jonas.session().path("role").asString()).isEqualTo("maintainer");
        StandInIssuer.leave("jonas");
        await("signed out", () -> jonas.session().isNull());
    }

    @Test
    void whileTheIssuerIsDownPeopleStayForAsLongAsIsSet() throws Exception {
        StandInIssuer.put("solveig", "engine-room");
        Person solveig = new Person();
        solveig.signIn("solveig", "");
        issuer.down();
        try {
            assertThat(Person.location(new Person().get(at("/sign-in/issuer?back=/files")))
                            .toString())
                    .satisfiesAnyOf(
                            sent -> assertThat(sent).contains("problem=issuer-gone", "back=%2Ffiles"),
                            sent -> assertThat(sent).startsWith(issuer.address())); // as its document said before
            assertThat(solveig.session().path("name").asString()).isEqualTo("solveig");
            await("nobody confirms who it is", () -> solveig.session().isNull());
        } finally {
            issuer.up();
        }
        assertThat(new Person().signIn("solveig", "")).isEqualTo(service.address() + "/");
    }

    @Test
    void namesAreNotTakenOverAndAccountsThatEndedStayEnded() throws Exception {
        asAdministrator("POST", "/api/v1/accounts", "{\"name\":\"liv\",\"password\":\"four old anchors\"}");
        StandInIssuer.put("liv");
        assertThat(new Person().signIn("liv", "")).contains("problem=name-taken");
        asAdministrator("PUT", "/api/v1/accounts/liv", "{\"password\":\"\"}");
        assertThat(new Person().signIn("liv", "")).isEqualTo(service.address() + "/");
        asAdministrator("DELETE", "/api/v1/accounts/liv", "");
        assertThat(new Person().signIn("liv", "")).contains("problem=ended");
        assertThat(List.of("mixed case", "-dash")).allSatisfy(name -> {
            StandInIssuer.put(name);
            assertThat(new Person().signIn(URLEncoder.encode(name, StandardCharsets.UTF_8), ""))
                    .contains("problem=no-name");
        });
    }
}
