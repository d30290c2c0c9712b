package dev.oddbeacon.e2e;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.openqa.selenium.By;
import org.openqa.selenium.WebElement;

/** Every page of the console, held against the rules of WCAG 2.2 AA that a program can check, by day and by night. */
class AccessibilityTest extends InBrowser {
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
            /calls?symbol=BerthPlanner.assign                          | [data-part=ends]
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
            /settings                                                  | [data-action=next]
            /no-such-page                                              | main
            """)
    void followsTheRules(String page, String drawn) {
        go(page);
        wait.until(_ -> browser.findElements(By.cssSelector(drawn)).stream().anyMatch(WebElement::isDisplayed));
        Accessibility.assertThatRulesAreFollowed(browser);
    }
}
