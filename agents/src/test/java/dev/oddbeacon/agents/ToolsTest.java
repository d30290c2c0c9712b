package dev.oddbeacon.agents;

import static org.assertj.core.api.Assertions.assertThat;

import io.modelcontextprotocol.json.McpJsonDefaults;
import io.modelcontextprotocol.spec.McpSchema;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** What agents are told of the tools. */
class ToolsTest {
    static List<Tool> tools() {
        return Tools.ALL;
    }

    @ParameterizedTest
    @MethodSource("tools")
    void describeThemselvesAndWhatTheyTake(Tool tool) {
        McpSchema.Tool described = tool.described();
        assertThat(described.description()).hasSizeBetween(40, 500);
        assertThat(described.annotations().readOnlyHint()).isTrue();
        Map<String, Object> schema = described.inputSchema();
        var validator = McpJsonDefaults.getSchemaValidator();
        assertThat(validator.validateSchema(schema).valid()).isTrue();
        assertThat(validator.validate(schema, Map.of("unknown", 1)).valid()).isFalse();
        Map<?, ?> properties = (Map<?, ?>) schema.get("properties");
        assertThat((List<?>) schema.get("required")).allMatch(properties::containsKey);
        assertThat(properties.values())
                .allSatisfy(property -> assertThat(((Map<?, ?>) property).get("description"))
                        .asString()
                        .hasSizeGreaterThan(5));
    }
}
