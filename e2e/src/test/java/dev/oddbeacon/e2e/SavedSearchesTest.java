package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;

/** Searches are kept in the console and in the terminal, and run in either. */
class SavedSearchesTest extends InBrowser {
    private static final List<String> OF_THE_DEMO =
            List.of("address-moved", "asks-tidewatch", "depths-in-feet", "large-files", "surge-in-code");

    @TempDir
    private Path folder;

    private static Client.Result run(String... arguments) {
        return Client.run(Demo.address(), arguments);
    }

    @AfterEach
    void clear() {
        run("searches", "remove", "gates");
    }

    private static List<String> names() {
        return run("searches", "list", "--format", "csv").lines().stream()
                .skip(1)
                .map(line -> line.substring(0, line.indexOf(',')))
                .toList();
    }

    @Test
    void whatIsKeptInTheTerminalIsRunAsItWasAsked() {
        assertThat(names()).isEqualTo(OF_THE_DEMO);
        String[] asked = {"lines", "--regex", "--type", "go", "--not-trait", "test", "--", "-?gate\\w*"};
        List<String> save = new ArrayList<>(List.of("searches", "save", "--description", "Of the fare gate", "gates"));
        save.addAll(List.of(asked));
        assertThat(run(save.toArray(String[]::new)).status()).isZero();
        Client.Result direct = run(asked);
        assertThat(direct.lines()).isNotEmpty();
        assertThat(run("searches", "run", "gates").out()).isEqualTo(direct.out());
        assertThat(run("searches", "run", "gates", "--limit", "2").lines()).hasSize(2);
        assertThat(run("searches", "run", "gates", "--only", "files", "--format", "jsonl")
                        .out())
                .contains("\"repository\":\"fare-gate\"");
        assertThat(run("searches", "show", "gates").out())
                .isEqualTo("oddbeacon lines --not-trait test --regex --type go -- '-?gate\\w*'\n");
        assertThat(run("searches", "save", "gates", "lines", "gate").err())
                .contains("There is a saved search gates already. --replace changes it.");
        assertThat(run("searches", "save", "--replace", "gates", "symbols", "FareGate", "--role", "any")
                        .status())
                .isZero();
        assertThat(run("searches", "show", "gates").out()).isEqualTo("oddbeacon symbols FareGate --role any\n");
        assertThat(run("searches", "save", "other", "pages", "gate").err())
                .contains("lines, files, symbols, commits, replace or scope");
    }

    @Test
    void aFileOfThemGoesOutAndComesBack() throws IOException {
        String yaml = run("searches", "export").out();
        assertThat(yaml).startsWith("saved-searches:\n").contains("  asks-tidewatch:\n");
        assertThat(yaml.lines().filter("    worklist: true"::equals).count())
                .as("as many as there are worklists")
                .isEqualTo(run("worklists", "list", "--format", "jsonl").lines().size());
        Path file = Files.writeString(folder.resolve("searches.yaml"), yaml);
        assertThat(run("searches", "import", file.toString()).err())
                .contains("There are saved searches of these names");
        assertThat(run("searches", "import", "--replace", file.toString()).lines())
                .isEqualTo(OF_THE_DEMO);
        assertThat(run("searches", "export").out()).isEqualTo(yaml);
    }

    @Test
    void theStartPageListsWhatIsKeptWithWhatItFindsAndRunsIt() {
        go("/");
        waitForText("[data-part=saved]", "asks-tidewatch");
        long hits = run("searches", "run", "asks-tidewatch", "--limit", "all")
                .lines()
                .size();
        waitForText("[data-part=saved]", hits + " hits");
        waitForText("[data-part=saved]", "3 commits");
        find("[data-part=saved] a[href*='surge']").click();
        waitForText("[data-part=counts]", "12");
        assertThat(browser.getCurrentUrl()).contains("/symbols?").contains("notTrait=test");
    }

    @Test
    void whatThePageShowsIsKeptUnderAName() {
        go("/?q=gate&type=go&shown=files");
        waitForText("[data-part=counts]", "files");
        find("[data-part=save-search]").click();
        WebElement name = find("[data-part=search-name]");
        name.sendKeys("gates", Keys.ENTER);
        waitForText("form [role=status]", "Saved");
        assertThat(run("searches", "show", "gates").out()).isEqualTo("oddbeacon lines gate --only files --type go\n");
        go("/");
        waitForText("[data-part=saved]", "gates");
        browser.findElements(By.cssSelector("[data-part=saved] a")).stream()
                .filter(link -> link.getText().equals("gates"))
                .findFirst()
                .orElseThrow()
                .click();
        wait.until(driver -> driver.getCurrentUrl().contains("shown=files"));
        waitForText("[data-part=counts]", "files");
    }
}
