package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.openqa.selenium.support.ui.ExpectedConditions.textToBePresentInElementLocated;

import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.Keys;
import org.openqa.selenium.TimeoutException;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Symbols in the console, as people meet them. */
class SymbolsConsoleTest extends InBrowser {
    private static final String PLANNER =
            "/file?in=berth-planner&path=src/main/java/quillhaven/berth/plan/BerthPlanner.java";

    @Test
    void symbolsAreListedWithTheCodeBesideThem() {
        browser.manage().window().setSize(new Dimension(1400, 900));
        go("/symbols?q=assign");
        waitForText("[data-part=counts]", "declarations");
        assertThat(find("a.symbol").getText()).contains("36", "method", "assign");
        find("[data-option=any]").click();
        waitForText("[data-part=counts]", "uses");
        waitForText("[data-part=preview]", "BerthPlanner");
        find("main input[type=search]").sendKeys(Keys.ARROW_DOWN, Keys.ENTER);
        waitForText("h1", "BerthPlanner.java");
    }

    @Test
    void theSearchBoxShowsSymbolsOfThatName() {
        go("/?q=BerthPlanner");
        waitForText("[data-part=all-symbols]", "symbols of such a name");
        new Actions(browser).keyDown(Keys.ALT).sendKeys("s").keyUp(Keys.ALT).perform();
        waitForText("[data-part=counts]", "declarations");
        assertThat(browser.getCurrentUrl()).contains("/symbols?q=BerthPlanner");
    }

    @Test
    void aChangeOfSubjectKeepsTextAndScope() {
        go("/?q=assign&repo=berth-planner");
        waitForText("[data-part=counts]", "hits");
        find("nav a[href^='/symbols']").click();
        waitForText("[data-part=counts]", "declarations");
        assertThat(find("main input[type=search]").getAttribute("value")).isEqualTo("assign");
        assertThat(browser.getCurrentUrl()).contains("q=assign", "repo=berth-planner");
        find("main input[type=search]").sendKeys("ByPushing");
        waitForText("[data-part=counts]", "1 declaration");
        find("nav a[href^='/commits']").click();
        waitForText("main", "No commit is like that");
        assertThat(browser.getCurrentUrl()).contains("/commits", "q=assignByPushing", "repo=berth-planner");
        find("nav a[href^='/?']").click();
        waitForText("[data-part=counts]", "2 hits");
        assertThat(browser.getCurrentUrl()).contains("q=assignByPushing", "repo=berth-planner");
    }

    @Test
    void aHitThatDeclaresIsMarkedAndExcerptsSayWhereTheyAre() {
        go("/?q=assign(&repo=berth-planner&type=java");
        waitForText("[data-part=enclosing]", "plan");
        assertThat(find("a[data-line='36']").getText()).contains("declares");
        assertThat(find("a[data-line='30']").getText()).doesNotContain("declares");
    }

    @Test
    void theOutlineLeadsThroughAFileAndANameToItsDeclaration() {
        go(PLANNER + "&line=60");
        waitForText("[data-part=symbols]", "assignByPushing");
        waitForText("[data-part=symbols] [aria-current]", "assignByPushing");
        new Actions(browser).sendKeys("o").perform();
        find("[data-part=symbols] input").sendKeys("viol");
        wait.until(driver -> driver.findElements(By.cssSelector("[data-part=symbols] button"))
                        .size()
                == 1);
        find("[data-part=symbols] input").sendKeys(Keys.ESCAPE);
        clickOn("Stay");
        waitForText("[data-part=symbol] h2", "Stay");
        waitForText("[data-part=declarations]", "Means");
        find("[data-part=declarations] a").click();
        waitForText("h1", "Stay.java");
    }

    @Test
    void aMethodTellsItsUsesByHowSureTheyAre() {
        go(PLANNER + "&line=60");
        clickOn("assign");
        waitForText("[data-part=meant]", "3 sure");
        find("[data-part=meant] a").click();
        waitForText("[data-part=of]", "this one");
        waitForText("a.symbol", "assign");
        assertThat(browser.findElements(By.cssSelector("a.symbol"))).hasSize(3);

        go("/file?in=berth-planner&path=src/main/java/quillhaven/berth/rule/Rule.java&line=9");
        clickOn("check");
        waitForText("[data-part=meant]", "0 sure, 1 likely; with those of its family");
        waitForText("[data-part=others]", "3 uses of the name");
        waitForText("[data-part=family]", "DepthRule.check");
        waitForText("[data-part=symbols]", "1"); // of the outline
    }

    @Test
    void usesOfAQualifiedNameAreToldByHowSureTheyAre() {
        go("/symbols?q=Rule.check&reading=plain&role=use");
        waitForText("a.symbol", "likely use");
        waitForText("section[aria-label='How sure']", "by name only");
        browser.findElements(By.cssSelector("section[aria-label='How sure'] button[title='by-name']"))
                .getFirst()
                .click();
        waitForText("a.symbol", "name only");
    }

    /** Clicks on the first text of the shown part of the file that is a name by itself. */
    private static void clickOn(String name) {
        String script =
                "const content = document.querySelector('.cm-content'); if (!content) return null; const walk = document.createTreeWalker(content, NodeFilter.SHOW_TEXT); let node; const box = document.querySelector('.cm-scroller').getBoundingClientRect();"
                        + "while ((node = walk.nextNode())) { const at = node.textContent.search(new RegExp('\\\\b' + arguments[0] + '\\\\b')); if (at < 0) continue; const range = document.createRange(); range.setStart(node, at); range.setEnd(node, at + 1);"
                        + "const r = range.getBoundingClientRect(); if (r.top > box.top && r.bottom < box.bottom && r.left < box.right) return [Math.round(r.left + r.width / 2), Math.round(r.top + r.height / 2)]; } return null;";
        find("[data-part=symbols] button"); // the outline has come, and moves the text no more
        // A click that falls while the text still scrolls to its line hits something else: it is made again.
        wait.until(driver -> {
            if (browser.executeScript(script, name) instanceof List<?> place) {
                new Actions(browser)
                        .moveToLocation(((Long) place.get(0)).intValue(), ((Long) place.get(1)).intValue())
                        .click()
                        .perform();
            }
            return shows(name);
        });
    }

    /** Whether the panel of the symbol comes within a few seconds. */
    private static boolean shows(String name) {
        try {
            return new WebDriverWait(browser, Duration.ofSeconds(5))
                    .until(textToBePresentInElementLocated(By.cssSelector("[data-part=symbol] h2"), name));
        } catch (TimeoutException e) {
            return false;
        }
    }

    @Test
    void oneKeyLeadsToTheTestAndBack() {
        go(PLANNER);
        waitForText("[data-part=counterpart]", "To its test");
        new Actions(browser).sendKeys("t").perform();
        waitForText("h1", "BerthPlannerTest.java");
        waitForText("[data-part=counterpart]", "what it tests");
        new Actions(browser).sendKeys("t").perform();
        waitForText("h1", "BerthPlanner.java");
    }

    @Test
    void commentsAndStringsLookAsTheIndexHasThem() {
        go(PLANNER);
        waitForText(".region-comment", "/**");
    }
}
