package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.ExpectedConditions;

/** The demo with its three people, in the console and in a terminal. */
class TeamTest extends InBrowser {
    private static final String PASSWORD = "seven piers at dusk";

    @TempDir
    static Path folder;

    private static Launched service;

    @BeforeAll
    static void startWithPeople() throws IOException, InterruptedException {
        service = Launched.start("demo", folder.resolve("data"), "--port", "0", "--with-accounts");
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    @AfterEach
    void signOut() {
        browser.manage().deleteAllCookies();
    }

    private static void open(String path) throws IOException {
        browser.get(service.address() + path);
    }

    private static void signIn(String name) throws IOException {
        open("/repositories");
        find("input[name=username]").sendKeys(name);
        find("input[name=password]").sendKeys(PASSWORD);
        find("main form button").click();
        find("header a[href='/account']");
    }

    private static void press(String text) {
        wait.until(ExpectedConditions.elementToBeClickable(By.xpath("//button[normalize-space()='" + text + "']")))
                .click();
    }

    @Test
    void itPrintsHowToSignIn() throws IOException {
        assertThat(service.output()).contains(PASSWORD, "mira", "jonas", "edda").doesNotContain("first#");
    }

    @Test
    void theConsoleShowsWhatOneMaySeeAndDo() throws IOException {
        signIn("edda");
        find("[data-repository=tidewatch]");
        assertThat(browser.findElements(By.cssSelector("[data-repository=hull-telemetry]")))
                .isEmpty();
        assertThat(browser.findElements(By.xpath("//button[normalize-space()='Add a repository']")))
                .as("readers add none")
                .isEmpty();
        assertThat(find("nav").getText()).doesNotContain("People");
    }

    @Test
    void thePagesAreForEverybody() throws IOException {
        open("/");
        find("input[name=username]");
        Accessibility.assertThatRulesAreFollowed(browser);
        signIn("mira");
        for (String page : List.of("/account", "/people", "/changes", "/device", "/first")) {
            open(page);
            find("main h1");
            if (page.equals("/people")) {
                find("[data-account=edda]");
            }
            Accessibility.assertThatRulesAreFollowed(browser);
        }
        open("/people");
        press("Add somebody");
        find("[role=dialog] form");
        Accessibility.assertThatRulesAreFollowed(browser);
        open("/repositories");
        find("[aria-label='Who sees hull-telemetry']").click();
        find("[role=dialog] input[type=checkbox]");
        Accessibility.assertThatRulesAreFollowed(browser);
    }

    @Test
    void aWrongPasswordIsSaid() throws IOException {
        open("/");
        find("input[name=username]").sendKeys("edda");
        find("input[name=password]").sendKeys("not this one");
        find("main form button").click();
        waitForText("main [role=alert]", "There is no account of this name with this password");
    }

    @Test
    void whoSeesARepositoryIsSaidAndTakesEffectWhileSomebodyLooks() throws IOException {
        signIn("jonas");
        WebElement row = find("[data-repository=hull-telemetry]");
        assertThat(row.getText()).contains("Hull telemetry");
        String token = token();
        Client.Result hidden = run(token, "repos", "viewers", "hull-telemetry", "--nobody");
        assertThat(hidden.status()).as(hidden.err()).isZero();
        wait.until(ExpectedConditions.invisibilityOfElementLocated(By.cssSelector("[data-repository=hull-telemetry]")));
        Client.Result shown = run(token, "repos", "viewers", "hull-telemetry", "--set", "team:engine-room");
        assertThat(shown.out()).isEqualTo("team:engine-room\n");
        find("[data-repository=hull-telemetry]");
    }

    /** A token of the administrator, made in the console. */
    private static String token() throws IOException {
        String cookieOfBefore =
                browser.manage().getCookieNamed("oddbeacon-session").getValue();
        browser.manage().deleteAllCookies();
        String made;
        try {
            signIn("mira");
            open("/account");
            find("input[maxlength='100']").sendKeys("tests");
            find("select").sendKeys("administrator");
            press("Make a token");
            made = find("[data-part=issued] code").getText();
        } finally {
            browser.manage().deleteAllCookies();
        }
        browser.manage().addCookie(new org.openqa.selenium.Cookie("oddbeacon-session", cookieOfBefore));
        open("/repositories");
        find("[data-repository=hull-telemetry]");
        return made;
    }

    private static Client.Result run(String token, String... arguments) throws IOException {
        return Client.run(service.address(), folder, "", Map.of("ODDBEACON_TOKEN", token), arguments);
    }

    private static Client.Result runSignedIn(String... arguments) throws IOException {
        return Client.run(
                service.address(),
                folder,
                "",
                Map.of("XDG_CONFIG_HOME", folder.resolve("config").toString()),
                arguments);
    }

    @Test
    void theClientSignsInThroughTheBrowser() throws Exception {
        Client.Result before = runSignedIn("lines", "tide");
        assertThat(before.status()).isEqualTo(2);
        assertThat(before.err()).contains("run oddbeacon sign-in");
        assertThat(runSignedIn("whoami").status()).isEqualTo(1);

        ProcessBuilder builder = new ProcessBuilder(
                "sh", Launched.HOME.resolve("oddbeacon").toString(), "sign-in", "--url", service.address());
        Launched.environment(builder.environment());
        builder.environment().put("XDG_CONFIG_HOME", folder.resolve("config").toString());
        Process process = builder.redirectErrorStream(true).start();
        try (var lines = process.inputReader()) {
            String link = lines.readLine().replace("Open ", "");
            String code = lines.readLine().replace("and compare the code: ", "");
            signIn("edda");
            browser.get(link);
            waitForText("[data-part=code]", code);
            press("Allow");
            waitForText("main [role=status]", "It is signed in now");
            assertThat(lines.readLine()).startsWith("Signed in. The token is kept in ");
        }
        assertThat(process.waitFor()).isZero();
        Path kept = folder.resolve("config/oddbeacon/tokens");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(kept)))
                .isEqualTo("rw-------");

        assertThat(runSignedIn("whoami").out()).startsWith("edda  Edda Voss, reader, in harbour-office, by the token");
        assertThat(runSignedIn("lines", "mooring buffer").status()).isZero();
        assertThat(runSignedIn("repos", "list").out()).contains("tidewatch").doesNotContain("hull-telemetry");
        Client.Result hidden = runSignedIn("repos", "viewers", "hull-telemetry");
        assertThat(hidden.err()).contains("Your role does not allow this");
        assertThat(runSignedIn("tokens", "list").out()).contains("LAST USED", "oddbeacon on ");
        aTokenForOneRepositoryIsAllowedInTheBrowser();
        assertThat(runSignedIn("sign-out").out()).startsWith("Signed out of ");
        assertThat(runSignedIn("lines", "tide").status()).isEqualTo(2);
    }

    private static void aTokenForOneRepositoryIsAllowedInTheBrowser() throws Exception {
        ProcessBuilder builder = new ProcessBuilder(
                "sh",
                Launched.HOME.resolve("oddbeacon").toString(),
                "tokens",
                "add",
                "--repo",
                "tidewatch",
                "--days",
                "7",
                "Nightly report",
                "--url",
                service.address());
        Launched.environment(builder.environment());
        Process process = builder.start();
        String token;
        try (var notes = process.errorReader();
                var lines = process.inputReader()) {
            browser.get(notes.readLine().replace("Open ", ""));
            waitForText("main", "Nightly report, reader for 7 days, sees tidewatch");
            Accessibility.assertThatRulesAreFollowed(browser);
            press("Allow");
            waitForText("main [role=status]", "It has the token now");
            token = lines.readLine();
        }
        assertThat(process.waitFor()).isZero();
        assertThat(run(token, "repos", "list").out()).contains("tidewatch").doesNotContain("berth-planner");
        assertThat(runSignedIn("tokens", "list").out()).contains("tidewatch", "Nightly report");
    }

    @ParameterizedTest
    @CsvSource({
        "'--listen 0.0.0.0', people have to sign in: add --with-accounts",
        "'--listen 0.0.0.0 --with-accounts', 'must not travel in the clear: add --tls'",
        "'--listen 0.0.0.0 --with-accounts --proxy 10.0.0.1', add --name search.example.org",
        "'--tls /nowhere /nowhere', cannot be read",
        "'--name a;b', neither an address nor the name of a host",
    })
    void whatOthersCouldReachWithoutSigningInIsRefused(String options, String said, @TempDir Path data)
            throws Exception {
        try (Launched refused = Launched.begin("serve", data, ("--port 0 " + options).split(" "))) {
            assertThat(refused.exitStatus()).isEqualTo(3);
            assertThat(refused.output()).contains(said);
        }
    }
}
