package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The examples in the documentation find something on the demo. */
class DocumentationTest {
    private static final String HEAD = "| example on the demo |";

    /** First cells of the tables that say so, without their backquotes. */
    private static List<String> examples(String page) throws IOException {
        List<String> examples = new ArrayList<>();
        boolean inTable = false;
        for (String line : Files.readAllLines(Path.of("..", "docs", page))) {
            inTable = line.startsWith(HEAD) || inTable && line.startsWith("|");
            if (inTable && line.startsWith("| `")) {
                examples.add(line.substring(3, line.indexOf("` |")).replace("\\|", "|"));
            }
        }
        return examples;
    }

    private static void find(String page, String reading, int atLeast) throws IOException {
        List<String> examples = examples(page);
        assertThat(examples).hasSizeGreaterThanOrEqualTo(atLeast);
        for (String example : examples) {
            JsonNode answer = Http.get(
                            Demo.address(), "/api/v1/search/lines", "q", example, "reading", reading, "only", "counts")
                    .json();
            assertThat(answer.path("counts").path("files").asInt())
                    .as(example + " " + answer.path("detail").asString())
                    .isPositive();
        }
    }

    @Test
    void ofTheExpressionLanguageFindSomething() throws IOException {
        find("expressions.md", "expression", 25);
    }

    @Test
    void ofRegularExpressionsFindSomething() throws IOException {
        find("regular-expressions.md", "regex", 12);
    }
}
