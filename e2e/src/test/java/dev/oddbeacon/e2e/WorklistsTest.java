package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.interactions.Actions;

/** Two people work through one list: one in the terminal, one in the console by keyboard. */
class WorklistsTest extends InBrowser {
    private static final String SEARCH = "surge-in-code"; // the demo has a list of another

    private static Client.Result run(String... arguments) {
        return Client.run(Demo.address(), arguments);
    }

    @AfterEach
    void clear() {
        run("worklists", "remove", SEARCH);
    }

    private static List<String> items(String state) {
        return run("worklists", "show", SEARCH, "--state", state, "--format", "csv").lines().stream()
                .skip(1)
                .toList();
    }

    private static String count(String state) {
        return browser.findElement(By.cssSelector("[data-state=" + state + "]")).getText();
    }

    private static void press(CharSequence... keys) {
        new Actions(browser).sendKeys(keys).perform();
    }

    @Test
    void whatOneTicksOffTheOtherSees() {
        go("/");
        waitForText("[data-part=saved]", SEARCH);
        find("[data-part=saved] a[href*='/saved?search=" + SEARCH + "']").click();
        wait.until(driver ->
                driver.findElements(By.cssSelector("a[href*='/worklist']")).size() == 1);
        find("a[href*='/worklist']").click();
        wait.until(driver -> !driver.findElements(By.xpath("//button[normalize-space()='Make a worklist']"))
                .isEmpty());
        browser.findElement(By.xpath("//button[normalize-space()='Make a worklist']"))
                .click();
        int all = run("searches", "run", SEARCH, "--limit", "all").lines().size();
        wait.until(driver -> count("open").equals(all + " open"));
        waitForText("[data-part=preview]", "urge");

        find("[data-part=own-name]").sendKeys("edda", Keys.TAB);
        press("c");
        waitForText("[data-part=claimed]", "edda");
        press("d");
        wait.until(driver -> count("done").equals("1 done"));
        press("s");
        find("[data-part=why]").sendKeys("Of the old signs", Keys.ENTER);
        wait.until(driver -> count("stays").equals("1 stay"));
        assertThat(items("done")).singleElement().asString().contains(",done,").contains(",edda,");
        assertThat(items("stays")).singleElement().asString().endsWith("Of the old signs");

        String next = items("open").getFirst().replaceAll(",.*", "");
        assertThat(run("worklists", "done", SEARCH, next, "--by", "jonas").status())
                .isZero();
        wait.until(driver -> count("done").equals("2 done"));
        assertThat(run("worklists", "reopen", SEARCH, next).status()).isZero();
        wait.until(driver -> count("done").equals("1 done"));
        assertThat(run("worklists", "list").out()).contains(SEARCH, (all - 2) + " open", "1 done, 1 stay");
        assertThat(run("worklists", "left", SEARCH).lines().getLast()).endsWith("  " + (all - 2));
        assertThat(run("worklists", "done", SEARCH, "999999999").err()).contains("no item 999999999");
        waitForText("[data-part=left]", (all - 2) + " items open");
        Accessibility.assertThatRulesAreFollowed(browser);
        go("/");
        waitForText("[data-part=saved]", (all - 2) + " left");
    }
}
