package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.client.output.Amounts;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** The examples in the documentation find on the demo what stands beside them. */
class DocumentationTest {
    private static final String HEAD = "| example on the demo | finds | on the demo |";

    /** A row of a table of examples. */
    private record Example(String query, String found) {}

    private static List<Example> examples(String page) throws IOException {
        List<Example> examples = new ArrayList<>();
        boolean inTable = false;
        for (String line : Files.readAllLines(Path.of("..", "docs", page))) {
            inTable = line.equals(HEAD) || inTable && line.startsWith("|");
            if (inTable && line.startsWith("| `")) {
                String query = line.substring(3, line.indexOf("` |")).replace("\\|", "|");
                String found = line.substring(line.lastIndexOf(" | ") + 3, line.lastIndexOf(" |"));
                examples.add(new Example(query, found));
            }
        }
        return examples;
    }

    private static String found(String query, String reading) throws IOException {
        JsonNode answer = Http.get(
                        Demo.address(),
                        "/api/v1/search/lines",
                        "q",
                        query,
                        "reading",
                        reading,
                        "only",
                        "counts",
                        "counts",
                        "exact")
                .json();
        JsonNode counts = answer.path("counts");
        if (!counts.path("exact").asBoolean()) {
            return answer.path("detail").asString("no exact counts");
        }
        String files = Amounts.of(counts.path("files").asInt(), "file");
        int hits = counts.path("hits").asInt();
        return hits == 0 ? files : Amounts.of(hits, "hit") + " in " + files;
    }

    private static void findWhatTheySay(String page, String reading, int atLeast) throws IOException {
        List<Example> examples = examples(page);
        assertThat(examples).hasSizeGreaterThanOrEqualTo(atLeast);
        List<Example> now = new ArrayList<>();
        for (Example example : examples) {
            now.add(new Example(example.query(), found(example.query(), reading)));
        }
        assertThat(now).isEqualTo(examples);
        assertThat(now).extracting(Example::found).doesNotContain("0 files");
    }

    @Test
    void ofTheExpressionLanguageFindWhatTheySay() throws IOException {
        findWhatTheySay("expressions.md", "expression", 25);
    }

    @Test
    void ofRegularExpressionsFindWhatTheySay() throws IOException {
        findWhatTheySay("regular-expressions.md", "regex", 12);
    }
}
