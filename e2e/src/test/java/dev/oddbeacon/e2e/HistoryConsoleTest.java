package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.support.ui.ExpectedConditions;

/** The past in the console, as people meet it. */
class HistoryConsoleTest extends InBrowser {
    @BeforeAll
    static void theWholePastIsRead() throws InterruptedException {
        HistoryTest.awaitPast(Demo.address());
        browser.manage().window().setSize(new Dimension(1280, 900));
    }

    private static List<WebElement> all(String css) {
        return browser.findElements(By.cssSelector(css));
    }

    /** What is replaced while it is clicked is looked up again. */
    private static void press(String css) {
        wait.until(ExpectedConditions.refreshed(ExpectedConditions.elementToBeClickable(By.cssSelector(css))))
                .click();
    }

    @Test
    void commitsAreNarrowedByPersonYearAndChangedLines() {
        go("/commits?q=address+tidewatch");
        waitForText("[data-part=counts]", "3 commits of 3 repositories");
        assertThat(find("[data-part=commit] mark").getText()).isEqualToIgnoringCase("address");
        go("/commits?repo=tidewatch");
        waitForText("[data-part=counts]", "repository");
        find("[data-part=timeline] canvas");
        find("[data-part=adds]").sendKeys("IMPOSSIBLE_JUMP");
        waitForText("[data-part=counts]", "1 commit of 1 repository");
        waitForText("[data-part=commit]", "IMPOSSIBLE_JUMP");
        assertThat(browser.getCurrentUrl()).contains("adds=IMPOSSIBLE_JUMP");
        go("/commits?repo=tidewatch&q=nothing-like-that");
        waitForText("main", "No commit is like that");
    }

    @Test
    void aCommitLeadsToItsFilesAndItsParent() {
        go("/commits?adds=IMPOSSIBLE_JUMP");
        press("a.commit");
        waitForText("h1", "A gauge that jumps is broken, not flooded");
        waitForText("[data-part=contained]", "main");
        waitForText("[data-part=diff-counts]", "+");
        waitForText(".diff-come", "1");
        new Actions(browser).sendKeys("n").perform();
        press("dd a.part");
        wait.until(ExpectedConditions.not(
                ExpectedConditions.textToBe(By.cssSelector("h1"), "A gauge that jumps is broken, not flooded")));
    }

    @Test
    void twoEntriesOfALogAreComparedSideBySide() {
        go("/log?in=tidewatch&path=tidewatch/surge.py");
        wait.until(driver -> all("a.entry").size() > 1);
        List<WebElement> marks = all("tr input[type=checkbox]");
        marks.getFirst().click();
        marks.getLast().click();
        press("[data-part=compare]");
        waitForText("[data-part=diff-file]", "surge.py");
        press("[data-option=split]");
        wait.until(driver -> all("[data-part=diff-file] col").size() >= 4);
        browser.navigate().refresh();
        wait.until(driver -> all("[data-part=diff-file] col").size() >= 4);
        press("[aria-label=Layout] button:first-child");
        wait.until(driver -> all("[data-part=diff-file] col").isEmpty());
    }

    @Test
    void aLineLeadsToItsOriginAndToTheVersionBefore() {
        go("/file?in=tidewatch&path=tidewatch/surge.py");
        press("[data-part=blame-button]");
        waitForText(".origins", "20");
        press(".origins .origin");
        find("[data-part=origin]");
        List<WebElement> before = all("[data-part=before]");
        if (before.isEmpty()) {
            waitForText("[data-part=origin]", "The file came in with this commit");
        } else {
            before.getFirst().click();
            wait.until(ExpectedConditions.urlContains("rev="));
            waitForText("h1", "surge.py");
        }
        press("[data-part=blame-button]");
    }

    @Test
    void aRevisionIsChosenByAFewLetters() {
        go("/tree?in=berth-planner");
        press("[data-part=revision]");
        find("[aria-label='Branch, tag or commit']").sendKeys("v");
        wait.until(driver -> all("button.revision").size() > 0
                && all("button.revision").stream().allMatch(one -> one.getText().contains("v")));
        String name = find("button.revision span.truncate").getText();
        find("[aria-label='Branch, tag or commit']").sendKeys(Keys.ENTER);
        wait.until(ExpectedConditions.urlContains("rev=" + name));
        waitForText("[data-part=revision]", name);
    }

    @Test
    void oneSeesHowLinesCameAndWentAndThatTheyWereThereOnce() {
        go("/?q=tides.quillhaven.example");
        waitForText("[data-part=over-time]", "There were such lines once");
        waitForText("[data-part=over-time]", "6 commits changed how many there are");
        find("[data-part=over-time] canvas");
        go("/?q=tidewatch");
        press("[data-option=overTime]");
        waitForText("[data-part=over-time]", "changed how many there are");
        press("[data-option=overTime]");
        wait.until(driver -> all("[data-part=over-time]").isEmpty());
    }

    @Test
    void aSearchIsNarrowedToWhatWasChangedLately() {
        go("/?q=tidewatch");
        waitForText("[data-part=counts]", "repositories");
        press("[data-part=changed]");
        WebElement since = find("input[placeholder^='2026-01-31, 2026']");
        since.sendKeys("2099", Keys.TAB);
        wait.until(ExpectedConditions.urlContains("changedAfter=2099"));
        waitForText("main", "Nothing found");
    }

    @Test
    void whatIsNotThereIsSaidAndLeadsOn() {
        go("/commit?in=tidewatch&id=" + "0".repeat(40));
        waitForText("main", "This commit cannot be shown");
        go("/log?in=tidewatch&path=no/such/file");
        waitForText("main", "There is no log to show");
        go("/diff?in=tidewatch&from=no-such-tag");
        waitForText("main", "These cannot be compared");
    }
}
