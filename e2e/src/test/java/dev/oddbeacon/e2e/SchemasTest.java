package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import io.modelcontextprotocol.json.McpJsonDefaults;
import io.modelcontextprotocol.json.schema.JsonSchemaValidator;
import java.io.IOException;
import java.nio.file.Files;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.json.JsonMapper;

/** What searches print as JSON lines is what the schemas in docs/schemas/ say: every field, and no other. */
class SchemasTest {
    private static final JsonMapper JSON = JsonMapper.shared();

    private static final Map<String, List<String[]>> RUNS = Map.of(
            "lines",
            List.of(
                    new String[] {"lines", "--limit", "all", "--context", "1", "tide"},
                    new String[] {"lines", "--expression", "tide not surge"}),
            "files",
            List.of(new String[] {"files", "--limit", "all"}, new String[] {"files", "--kind", "folder", "src"}),
            "symbols",
            List.of(
                    new String[] {"symbols", "--limit", "all", "--role", "any", "t"},
                    new String[] {"symbols", "--plain", "--role", "use", "BerthPlanner.assign"},
                    new String[] {
                        "symbols", "--plain", "--role", "any", "--certainty", "sure,likely,by-name", "Rule.check"
                    }),
            "commits",
            List.of(
                    new String[] {"commits", "--limit", "all"},
                    new String[] {"commits", "--adds", "tide"},
                    new String[] {"commits", "--removes", "tide", "tide"}));

    @ParameterizedTest
    @ValueSource(strings = {"lines", "files", "symbols", "commits"})
    @SuppressWarnings("unchecked") // JSON objects are maps by text
    void describeEveryLine(String subject) throws IOException {
        Map<String, Object> schema = JSON.readValue(
                Files.readString(Launched.HOME.resolve("docs/schemas/" + subject + ".schema.json")), Map.class);
        JsonSchemaValidator validator = McpJsonDefaults.getSchemaValidator();
        assertThat(validator.validateSchema(schema).valid()).isTrue();
        Set<String> seen = new HashSet<>();
        for (String[] run : RUNS.get(subject)) {
            String[] command = Arrays.copyOf(run, run.length + 2);
            command[run.length] = "--format";
            command[run.length + 1] = "jsonl";
            List<String> lines = Client.run(Demo.address(), command).lines();
            assertThat(lines).as("%s", List.of(run)).isNotEmpty();
            for (String line : lines) {
                Map<String, Object> object = JSON.readValue(line, Map.class);
                assertThat(validator.validate(schema, object).errorMessage())
                        .as(line)
                        .isNull();
                seen.addAll(object.keySet());
            }
        }
        Set<String> described = new HashSet<>(((Map<String, Object>) schema.get("properties")).keySet());
        described.remove("local"); // with --here alone
        assertThat(seen).isEqualTo(described);
        Map<String, Object> more = new HashMap<>(Map.of("unknown", 1));
        assertThat(validator.validate(schema, more).valid()).isFalse();
    }
}
