package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.support.ui.ExpectedConditions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Tests of the console: one browser for each class, and what all of them do in it. */
abstract class InBrowser {
    static ChromeDriver browser;
    static WebDriverWait wait;

    @BeforeAll
    static void open() throws IOException {
        ChromeOptions options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments(
                "--headless",
                "--no-sandbox",
                "--disable-gpu",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--window-size=1280,800",
                "--user-data-dir=" + Files.createTempDirectory("chromium"));
        ChromeDriverService service = new ChromeDriverService.Builder()
                .usingDriverExecutable(new java.io.File("/usr/bin/chromedriver"))
                .build();
        browser = new ChromeDriver(service, options);
        wait = new WebDriverWait(browser, Duration.ofSeconds(30));
    }

    @AfterAll
    static void quit() {
        browser.quit();
    }

    @AfterEach
    void nothingIsComplainedAboutInTheBrowser() {
        List<String> complaints = browser.manage().logs().get("browser").getAll().stream()
                .map(LogEntry::getMessage)
                .filter(message -> !message.contains("status of 400")
                        && !message.contains("status of 401")
                        && !message.contains("status of 404")
                        && !message.contains("status of 409"))
                .toList();
        assertThat(complaints).isEmpty();
    }

    static void go(String path) {
        browser.get(Demo.address() + path);
    }

    static WebElement find(String css) {
        return wait.until(ExpectedConditions.visibilityOfElementLocated(By.cssSelector(css)));
    }

    static void waitForText(String css, String text) {
        wait.until(ExpectedConditions.textToBePresentInElementLocated(By.cssSelector(css), text));
    }

    static void type(String text) {
        WebElement box = find("#search-text");
        box.sendKeys(Keys.chord(Keys.CONTROL, "a"), Keys.DELETE);
        box.sendKeys(text);
    }
}
