package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;

/**
 * Every page of the console, held against the rules of WCAG 2.2 AA that a program can check, by day and by night. Lines of
 * code among others may be lower than 24 pixels: the line height of the code constrains them (2.5.8, exception "inline").
 */
class AccessibilityTest extends InBrowser {
    private static final String CHECK = """
            const done = arguments[arguments.length - 1]
            const isLineOfCode = (rule, node) => rule.id === 'target-size' && /class="(hit|symbol) /.test(node.html)
            axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then(
              found => done(found.violations.flatMap(rule =>
                rule.nodes.filter(node => !isLineOfCode(rule, node))
                  .map(node => `${rule.id}: ${node.html.slice(0, 200)} ${node.failureSummary}`))),
              error => done([String(error)]),
            )""";
    private static String axe;

    @BeforeAll
    static void load() throws IOException {
        try (InputStream script = AccessibilityTest.class.getResourceAsStream("/axe.min.js")) {
            axe = new String(script.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** @param drawn what is there once the page is drawn, as a selector */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', textBlock = """
            /                                                          | main kbd
            /?q=mooring                                                | a.hit
            /?q=no+such+text+anywhere                                  | [data-part=over-time], [data-part=about-file]
            /?reading=expression&q=naer(3,+tide,+gauge)                | [data-part=mistake]
            /?q=tide&except=translations&shown=files                   | a.hit
            /files                                                     | a.found
            /files?q=ticket                                            | a.found
            /files?q=nothing-is-called-so                              | main section
            /symbols                                                   | main p
            /symbols?q=assign                                          | a.symbol
            /commits                                                   | [data-part=timeline]
            /commits?q=buffer                                          | a.commit
            /commit?in=tidewatch&id=main                               | [data-part=diff-file], main
            /log?in=tidewatch&path=tidewatch/surge.py                  | article, main li a, main a
            /diff?in=berth-planner&from=main~2&to=main                 | main section
            /tree?in=berth-planner                                     | main a
            /tree?in=berth-planner&path=nowhere                        | [role=alert]
            /file?in=fare-gate&path=internal/ticket/ticket.go&line=13  | .cm-line
            /file?in=fare-gate&path=README.md                          | .cm-line
            /places                                                    | textarea
            /repositories                                              | [data-part=state]
            /repositories?add=true                                     | form input
            /sets                                                      | [data-part=patterns], main input
            /types                                                     | table
            /learn                                                     | main a
            /no-such-page                                              | main
            """)
    void followsTheRules(String page, String drawn) {
        go(page);
        wait.until(_ -> browser.findElements(By.cssSelector(drawn)).stream().anyMatch(WebElement::isDisplayed));
        browser.executeScript(axe);
        for (String theme : List.of("day", "night")) {
            browser.executeScript("document.documentElement.dataset.theme = arguments[0]", theme);
            assertThat((List<?>) browser.executeAsyncScript(CHECK)).as(theme).isEmpty();
        }
    }
}
