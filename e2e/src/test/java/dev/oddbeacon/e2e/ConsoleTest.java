package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.support.ui.ExpectedConditions;

class ConsoleTest extends InBrowser {
    @TempDir
    Path folder;

    @Test
    void hitsAppearWhileTypingAndTheAddressHoldsTheSearch() {
        go("/");
        type("mooring buf");
        waitForText("[data-part=counts]", "hits in");
        type("mooring buffer");
        waitForText("[data-part=counts]", "9 hits in 8 files of 2 repositories");
        assertThat(browser.findElements(By.cssSelector("a.hit mark")))
                .hasSizeGreaterThanOrEqualTo(5)
                .isNotEmpty()
                .allSatisfy(mark -> assertThat(mark.getText()).isEqualToIgnoringCase("mooring buffer"));
        wait.until(ExpectedConditions.urlContains("q=mooring+buffer"));
        browser.navigate().refresh();
        waitForText("[data-part=counts]", "9 hits in 8 files of 2 repositories");
        assertThat(find("#search-text").getDomProperty("value")).isEqualTo("mooring buffer");
    }

    @Test
    void optionsCombine() {
        go("/?q=Ring&repo=hull-telemetry");
        waitForText("[data-part=counts]", "hit");
        find("[data-option=word]").click();
        wait.until(ExpectedConditions.urlContains("word=true"));
        find("[data-option=case]").click();
        find("[data-option=case]").click();
        wait.until(ExpectedConditions.urlContains("case=ignore"));
        find("[data-option=regex]").click();
        wait.until(ExpectedConditions.urlContains("reading=regex"));
        type("r[i-i]ng");
        waitForText("[data-part=counts]", "42 hits in 15 files");
        assertThat((List<?>) browser.executeScript(
                        "return [...document.querySelectorAll('a.hit mark')].map(mark => mark.textContent)"))
                .isNotEmpty()
                .isNotEmpty()
                .allSatisfy(mark -> assertThat((String) mark).isEqualToIgnoringCase("ring"));
    }

    @Test
    void contextIsAdjustedFromNoneToFifty() {
        go("/?q=multipliedBy&repo=berth-planner");
        waitForText("[data-part=context]", "2 context lines");
        wait.until(driver -> driver.findElements(By.cssSelector("[data-part=results] div.flex.text-soft"))
                        .size()
                == 4);
        find("[aria-label='Fewer context lines']").click();
        find("[aria-label='Fewer context lines']").click();
        wait.until(driver -> driver.findElements(By.cssSelector("[data-part=results] div.flex.text-soft"))
                .isEmpty());
        assertThat(find("[aria-label='Fewer context lines']").isEnabled()).isFalse();
        for (int i = 0; i < 10; i++) {
            find("[aria-label='More context lines']").click();
        }
        waitForText("[data-part=context]", "10 context lines");
        for (int i = 0; i < 8; i++) {
            find("[aria-label='More context lines']").click();
        }
        waitForText("[data-part=context]", "50 context lines");
        assertThat(find("[aria-label='More context lines']").isEnabled()).isFalse();
    }

    @Test
    void aHitOpensItsFileAtTheLineAndBackReturnsToTheSameSpot() {
        go("/?q=er&context=0");
        find("a.hit");
        wait.until(driver -> {
            browser.executeScript("window.scrollTo(0, document.body.scrollHeight)");
            return browser.executeScript(
                            "return [...document.querySelectorAll('[data-file]')].some(file => Number(file.dataset.file) > 40 && file.querySelector('a.hit'))")
                    .equals(true);
        });
        browser.executeScript("window.scrollBy(0, -600)");
        String[] before = {""};
        wait.until(
                driver -> { // pages come in below, rows are measured: until all stands still
                    String now = String.valueOf(
                            browser.executeScript(
                                    "return [document.body.scrollHeight, window.scrollY, document.querySelectorAll('a.hit').length].join()"));
                    boolean isStill = now.equals(before[0]);
                    before[0] = now;
                    return isStill;
                });
        WebElement hit = wait.until(
                driver -> (WebElement)
                        browser.executeScript(
                                "for (let y = 250; y < 700; y += 10) { const hit = document.elementFromPoint(700, y)?.closest('a.hit'); if (hit) return hit } window.scrollBy(0, -40); return null"));
        Number spot = (Number) browser.executeScript("return window.scrollY");
        String line = hit.getDomAttribute("data-line");
        hit.click();
        wait.until(ExpectedConditions.urlContains("line=" + line));
        assertThat(find(".current-line mark").getText()).isEqualToIgnoringCase("er");
        waitForText("[data-part=place]", "of");
        assertThat(find(".cm-content").getDomAttribute("aria-readonly")).isEqualTo("true");
        browser.navigate().back();
        wait.until(driver -> !driver.findElements(By.cssSelector("a.hit")).isEmpty());
        wait.until(driver ->
                Math.abs(((Number) browser.executeScript("return window.scrollY")).doubleValue() - spot.doubleValue())
                        < 40);
    }

    @Test
    void headingsStayAboveTheirCodeWhenScrolled() {
        go("/?q=er&context=0");
        find("a.hit");
        for (int screens = 1; screens < 4; screens++) {
            browser.executeScript("window.scrollBy(0, 700)");
            wait.until(driver ->
                    driver.findElements(By.cssSelector("[data-file] a.hit")).size() > 3);
            // a heading is above the first line, unless it sticks to the top of the window
            wait.until(driver -> browser.executeScript(
                            "const all = [...document.querySelectorAll('[data-file]')]; return all.length > 1 && all.every(file => { const top = file.querySelector('h3').getBoundingClientRect().top; const first = file.querySelector('a.hit'); return !first || top <= Math.max(0, first.getBoundingClientRect().top) })")
                    .equals(true));
        }
    }

    @Test
    void ofALikelyFileTenHitsAreShownUntilAllAreWanted() {
        go("/?q=berth&context=0&repo=berth-planner");
        WebElement file = find("section[aria-label$='/plan/BerthPlanner.java']");
        assertThat(file.findElements(By.cssSelector("a.hit"))).hasSize(10);
        assertThat(file.getText()).contains("18 hits");
        WebElement more = file.findElement(By.cssSelector("[data-part=whole]"));
        assertThat(more.getText()).isEqualTo("8 more hits in this file");
        more.click();
        wait.until(driver -> driver.findElements(By.cssSelector("section[aria-label$='/plan/BerthPlanner.java'] a.hit"))
                        .size()
                == 18);
        assertThat(browser.findElements(
                        By.cssSelector("section[aria-label$='/plan/BerthPlanner.java'] [data-part=whole]")))
                .isEmpty();
        go("/?q=berth&context=0&repo=berth-planner&order=path&under=%2Fsrc%2Fmain%2Fjava%2Fquillhaven%2Fberth%2Fplan");
        wait.until(driver -> driver.findElements(By.cssSelector("section[aria-label$='/plan/BerthPlanner.java'] a.hit"))
                        .size()
                == 18);
    }

    @Test
    void theKeyboardAloneIsEnough() {
        go("/?q=ErrFull");
        wait.until(driver -> !driver.findElements(By.cssSelector("a.hit")).isEmpty());
        find("#search-text").sendKeys(Keys.ENTER);
        wait.until(
                driver -> "A".equalsIgnoreCase(driver.switchTo().activeElement().getTagName()));
        String first = browser.switchTo().activeElement().getDomAttribute("data-line");
        browser.switchTo().activeElement().sendKeys(Keys.ARROW_DOWN);
        assertThat(browser.switchTo().activeElement().getDomAttribute("data-line"))
                .isNotEqualTo(first);
        browser.switchTo().activeElement().sendKeys(Keys.ARROW_UP, Keys.ENTER);
        wait.until(ExpectedConditions.urlContains("line=" + first));
    }

    @Test
    void nothingFoundAndMistakesAreSaid() {
        go("/?q=no+such+text+anywhere");
        waitForText("main h1", "Nothing found");
        go("/?q=assign(&reading=regex");
        waitForText("[data-part=unfinished]", "The ( at position 7 is not closed");
        find("#search-text").sendKeys(Keys.ENTER);
        waitForText("[role=alert]", "The ( at position 7 is not closed");
        go("/?q=x&repo=nobody");
        waitForText("[role=alert]", "There is no repository nobody");
        go("/file?in=fare-gate&path=nowhere.go");
        waitForText("[role=alert]", "There is no file nowhere.go");
    }

    @Test
    void theScopeIsASentenceWhosePartsChangeIt() {
        go("/?q=expire");
        waitForText("[data-part=repositories]", "all 7 repositories");
        find("[data-part=labels]").click();
        find("label input[type=checkbox]");
        browser.findElements(By.cssSelector("label")).stream()
                .filter(label -> label.getText().equals("customer"))
                .findFirst()
                .orElseThrow()
                .click();
        wait.until(ExpectedConditions.urlContains("label=customer"));
        waitForText("[data-part=counts]", "of 2 repositories");
    }

    @Test
    void facetsNarrowToATypeAndLeaveATraitOut() {
        go("/?q=ticket");
        waitForText("[data-part=counts]", "hits in");
        find("[aria-label='By type'] button[title=go]").click();
        wait.until(ExpectedConditions.urlContains("type=go"));
        waitForText("[data-part=types]", "in go");
        waitForText("[data-part=counts]", "of 1 repository");
        find("[aria-label='By type'] button[title=go]").click();
        waitForText("[data-part=types]", "in files of any type");
        waitForText("[data-part=counts]", "of 3 repositories");
        browser.executeScript("document.querySelector('[aria-label=\"Leave out translation\"]').click()");
        wait.until(ExpectedConditions.urlContains("notTrait=translation"));
        waitForText("[data-part=traits]", "not translation");
    }

    @Test
    void exclusionSetsAreMadeWithTheirEffectInSightAppliedAndLifted() {
        try {
            go("/sets");
            wait.until(ExpectedConditions.elementToBeClickable(By.xpath("//button[normalize-space()='New set']")))
                    .click();
            find("form input").sendKeys("ours");
            find("[data-part=patterns]").sendKeys("ticket*\n[ab");
            waitForText("[data-part=effect]", "files left");
            waitForText("[data-part=warning]", "single source file");
            waitForText("section[aria-label='What the patterns do']", "Line 2: This [ is not closed.");
            find("form [type=submit]").click();
            waitForText("[role=alert]", "Line 2: This [ is not closed.");
            find("[data-part=patterns]").sendKeys(Keys.BACK_SPACE, Keys.BACK_SPACE, Keys.BACK_SPACE);
            find("form [type=submit]").click();
            waitForText("[role=status].text-good", "Saved.");

            Http.put(Demo.address(), "/api/v1/exclusion-sets/ours", "{\"patterns\":\"gate*\",\"version\":0}");
            waitForText("form [role=alert]", "Somebody else changed this set meanwhile.");

            go("/?q=gate&repo=fare-gate");
            waitForText("[data-part=counts]", "hits in");
            find("[data-part=sets]").click();
            find("label[title] input[type=checkbox]");
            browser.findElements(By.cssSelector("label")).stream()
                    .filter(label -> label.getText().startsWith("ours"))
                    .findFirst()
                    .orElseThrow()
                    .click();
            wait.until(ExpectedConditions.urlContains("except=ours"));
            waitForText("[data-part=sets]", "leaving out ours");
            waitForText("[data-part=left-out]", "left out by ours");
            find("#search-text").sendKeys(Keys.chord(Keys.ALT, "l"));
            waitForText("[data-part=sets]", "leaving nothing out");
        } finally {
            Http.delete(Demo.address(), "/api/v1/exclusion-sets/ours");
        }
    }

    @Test
    void theListIsFoldedAndWalkedThroughByKeys() {
        go("/?q=ticket&repo=fare-gate");
        waitForText("[data-part=counts]", "hits in");
        int files = browser.findElements(By.cssSelector("[data-file]")).size();
        find("#search-text").sendKeys(Keys.ENTER);
        WebElement first = browser.switchTo().activeElement();
        first.sendKeys(Keys.chord(Keys.SHIFT, Keys.ARROW_DOWN));
        wait.until(driver -> driver.switchTo()
                        .activeElement()
                        .findElements(By.xpath("ancestor::*[@data-file='1']"))
                        .size()
                == 1);
        browser.switchTo().activeElement().sendKeys("f");
        wait.until(driver ->
                driver.findElements(By.cssSelector("[data-file='1'] a.hit")).isEmpty());
        assertThat(browser.findElements(By.cssSelector("[data-file='0'] a.hit")))
                .isNotEmpty();
        browser.findElements(By.cssSelector("button")).stream()
                .filter(button -> button.getText().equals("Fold all"))
                .findFirst()
                .orElseThrow()
                .click();
        wait.until(driver -> driver.findElements(By.cssSelector("a.hit")).isEmpty());
        assertThat(browser.findElements(By.cssSelector("[data-file]"))).hasSize(files);
        browser.findElement(By.cssSelector("body")).sendKeys("F");
        wait.until(driver -> !driver.findElements(By.cssSelector("a.hit")).isEmpty());
        browser.findElement(By.cssSelector("body")).sendKeys("?");
        waitForText("[role=dialog]", "copies repository/path:line of the hit");
    }

    @Test
    void aMissingFileIsAskedAbout() {
        go("/?q=ticket&except=translations&repo=passenger-app");
        waitForText("[data-part=counts]", "hits in");
        find("[data-part=about-file] button").click();
        find("[data-part=about-file] input").sendKeys("passenger-app/src/translations/de/tickets.json", Keys.ENTER);
        waitForText("[data-part=about-file]", "It is not among the results.");
        waitForText("[data-part=about-file]", "takes it out with the folder src/translations/de");
    }

    @Test
    void aPageListsTheTypes() {
        go("/types");
        find("[aria-label='Filter types']").sendKeys("ksh");
        waitForText("tbody", "shell");
        assertThat(browser.findElements(By.cssSelector("tbody tr"))).hasSize(1);
    }

    @Test
    void nothingThatIsTypedIsLostAndTheLastSearchIsTheOneShown() {
        go("/");
        for (String text : List.of("surge threshold", "ring buffer", "life jackets")) {
            type(text);
            assertThat(find("#search-text").getDomProperty("value")).isEqualTo(text);
            wait.until(ExpectedConditions.urlContains("q=" + text.replace(' ', '+')));
            wait.withMessage(() -> text + ": " + shownMatches() + " on " + browser.getCurrentUrl() + ": "
                            + browser.findElement(By.tagName("body")).getText())
                    .until(driver -> shownMatches().equals(List.of(text)));
        }
    }

    /** The distinct matches that are marked, in small letters. */
    private static List<?> shownMatches() {
        return (List<?>)
                browser.executeScript(
                        "return [...new Set([...document.querySelectorAll('a.hit mark')].map(mark => mark.textContent.toLowerCase()))]");
    }

    @Test
    void darkColoursAreKeptAndNarrowWindowsDoNotScrollSideways() {
        go("/?q=mooring+buffer");
        boolean night = "night".equals(browser.executeScript("return document.documentElement.dataset.theme"));
        browser.findElement(By.cssSelector("header button")).click();
        browser.navigate().refresh();
        assertThat("night".equals(browser.executeScript("return document.documentElement.dataset.theme")))
                .isNotEqualTo(night);
        browser.manage().window().setSize(new org.openqa.selenium.Dimension(500, 800));
        try {
            waitForText("[data-part=counts]", "9 hits");
            assertThat((Boolean)
                            browser.executeScript("return document.documentElement.scrollWidth <= window.innerWidth"))
                    .isTrue();
        } finally {
            browser.manage().window().setSize(new org.openqa.selenium.Dimension(1280, 800));
        }
    }

    @Test
    void aLineOfAFileIsALink() {
        go("/file?in=fare-gate&path=internal%2Fcount%2Fcount.go&rev=main&line=10");
        waitForText(".current-line", "ErrFull");
        WebElement number = browser.findElements(By.cssSelector(".cm-lineNumbers .cm-gutterElement")).stream()
                .filter(each -> each.getText().equals("5"))
                .findFirst()
                .orElseThrow();
        number.click();
        wait.until(ExpectedConditions.urlContains("line=5"));
        waitForText(".current-line", "errors");
    }

    @Test
    void skippedFilesAreListedAndOpened() {
        go("/repositories");
        find("tbody[data-repository=passenger-app] button.part").click();
        WebElement image = wait.until(ExpectedConditions.elementToBeClickable(By.linkText("public/beacon.png")));
        image.click();
        WebElement shown = find("figure img");
        wait.until(
                driver -> ((Number) browser.executeScript("return arguments[0].naturalWidth", shown)).intValue() == 48);
        assertThat(find("figcaption").getText()).contains("not searched: binary");
    }

    @Test
    void repositoriesAreAddedRefreshedAndRemoved() throws IOException {
        GitFolder git = GitFolder.create(folder.resolve("kittiwake"))
                .write("nest.txt", "a kittiwake\n")
                .commit("one");
        go("/repositories");
        find("tbody[data-repository=fare-gate]");
        browser.findElement(By.xpath("//button[text()='Add a repository']")).click();
        find("input[placeholder^='/srv/git']").sendKeys(git.path().toString(), Keys.TAB);
        find("[role=dialog] form").submit();
        waitForText("tbody[data-repository=kittiwake] [data-part=state]", "ready");
        git.write("more.txt", "another kittiwake\n").commit("two");
        find("[aria-label='Refresh kittiwake']").click();
        wait.until(driver -> driver.findElement(By.cssSelector("tbody[data-repository=kittiwake]"))
                .getText()
                .contains(head(git)));
        find("[aria-label='Remove kittiwake']").click();
        wait.until(ExpectedConditions.elementToBeClickable(By.xpath("//div[@role='dialog']//button[text()='Remove']")))
                .click();
        wait.until(ExpectedConditions.numberOfElementsToBe(By.cssSelector("tbody[data-repository=kittiwake]"), 0));
    }

    private static String head(GitFolder git) {
        try {
            return git.git("rev-parse", "HEAD").substring(0, 8);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void anExpressionIsMarkedWhereItIsWrongAndCorrectedWithOneMove() {
        go("/?reading=expression&q=naer(3, tide, gauge)");
        assertThat(find("[data-part=mistake]").getText()).isEqualTo("naer");
        find("[data-part=suggestion]").click();
        wait.until(ExpectedConditions.urlContains("near"));
        assertThat(find("a.hit").isDisplayed()).isTrue();
    }

    @Test
    void halfAnExpressionIsNoMistake() {
        go("/?reading=expression&q=tide and (surge");
        assertThat(find("[data-part=unfinished]").getText()).contains("not closed");
        assertThat(browser.findElements(By.cssSelector("[role=alert]"))).isEmpty();
        assertThat(find("a.hit").isDisplayed()).isTrue();
    }

    @Test
    void everySearchCanBeTakenOverAsAnExpression() {
        go("/?q=surge threshold&repo=tidewatch&word=true");
        assertThat(find("[data-part=expression] code").getText())
                .isEqualTo("repo(tidewatch) word(\"surge threshold\")");
        String counts = find("[data-part=counts] strong").getText();
        find("[data-part=expression] button").click();
        wait.until(ExpectedConditions.urlContains("reading=expression"));
        wait.until(ExpectedConditions.textToBe(By.cssSelector("[data-part=counts] strong"), counts));
    }

    @Test
    void aSearchThatFoundNothingOffersOthersByKey() {
        go("/?q=buffer mooring");
        assertThat(find("[data-part=second-looks] button").getText()).contains("the words apart, on one line");
        find("#search-text").sendKeys(Keys.chord(Keys.ALT, "1"));
        wait.until(ExpectedConditions.urlContains("reading=expression"));
        assertThat(find("a.hit").isDisplayed()).isTrue();
        find("#search-text").sendKeys(Keys.ARROW_UP);
        wait.until(ExpectedConditions.attributeToBe(By.cssSelector("#search-text"), "value", "buffer mooring"));
    }

    @Test
    void theListGoesOnToItsEnd() {
        int files = Http.get(Demo.address(), "/api/v1/search/lines", "q", "e", "counts", "exact")
                .json()
                .path("counts")
                .path("files")
                .asInt();
        go("/?q=e&context=0");
        wait.until(page -> {
            browser.executeScript("window.scrollTo(0, document.body.scrollHeight)");
            return !browser.findElements(By.cssSelector("[data-file='" + (files - 1) + "'] a.hit"))
                    .isEmpty();
        });
        assertThat(browser.findElements(By.cssSelector("*")))
                .as("only what is in sight is drawn")
                .hasSizeLessThan(6_000);
    }

    @Test
    void thePageThatTeachesRunsItsExamples() {
        go("/learn");
        wait.until(page -> browser.findElements(By.cssSelector("tbody tr")).stream()
                .allMatch(row -> row.getText().matches("(?s).*(hits?|files?|nothing here)")));
        assertThat(browser.findElements(By.cssSelector("tbody tr")).stream()
                        .filter(row -> row.getText().endsWith("nothing here"))
                        .count())
                .isLessThan(8);
    }
}
