package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.openqa.selenium.chrome.ChromeDriver;

/**
 * The rules of WCAG 2.2 AA that a program can check. Lines of code among others may be lower than 24 pixels: the line
 * height of the code constrains them (2.5.8, exception "inline").
 */
final class Accessibility {
    private static final String CHECK = """
            const done = arguments[arguments.length - 1]
            const isLineOfCode = (rule, node) => rule.id === 'target-size' && /class="(hit|symbol) /.test(node.html)
            axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then(
              found => done(found.violations.flatMap(rule =>
                rule.nodes.filter(node => !isLineOfCode(rule, node))
                  .map(node => `${rule.id}: ${node.html.slice(0, 200)} ${node.failureSummary}`))),
              error => done([String(error)]),
            )""";
    private static final String AXE = axe();

    private Accessibility() {}

    private static String axe() {
        try (InputStream script = Accessibility.class.getResourceAsStream("/axe.min.js")) {
            return new String(script.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Checks the page that is shown, by day and by night. */
    static void assertThatRulesAreFollowed(ChromeDriver browser) {
        browser.executeScript(AXE);
        for (String theme : List.of("day", "night")) {
            browser.executeScript("document.documentElement.dataset.theme = arguments[0]", theme);
            assertThat((List<?>) browser.executeAsyncScript(CHECK)).as(theme).isEmpty();
        }
    }
}
