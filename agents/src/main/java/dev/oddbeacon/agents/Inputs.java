package dev.oddbeacon.agents;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What a tool takes: its JSON Schema. */
final class Inputs {
    private final Map<String, Object> properties = new LinkedHashMap<>();
    private List<String> required = List.of();

    Inputs text(String name, String description) {
        properties.put(name, Map.of("type", "string", "description", description));
        return this;
    }

    Inputs oneOf(String name, String description, String... values) {
        properties.put(name, Map.of("type", "string", "enum", List.of(values), "description", description));
        return this;
    }

    Inputs texts(String name, String description) {
        properties.put(name, Map.of("type", "array", "items", Map.of("type", "string"), "description", description));
        return this;
    }

    Inputs number(String name, String description, int least, int most) {
        properties.put(name, Map.of("type", "integer", "minimum", least, "maximum", most, "description", description));
        return this;
    }

    /** The part that all searches share: where to look. */
    Inputs scope() {
        return texts("repositories", "Only these; * stands for any characters. All that may be seen, if absent.")
                .texts("under", "Only in these folders or files, as globs: src/, *.java.")
                .texts("not_under", "Not in these.")
                .texts("types", "Only files of these types: java, python, markdown.");
    }

    /** The part that all tools share whose answers may be long. */
    Inputs budget() {
        return number("tokens", "Most tokens of the answer (" + Budget.DEFAULT + ").", Budget.LEAST, Budget.MOST)
                .text("more", "What the last answer said goes on with it; all else as before.");
    }

    Inputs required(String... names) {
        required = List.of(names);
        return this;
    }

    Map<String, Object> schema() {
        Map<String, Object> schema = new LinkedHashMap<>();
        schema.put("type", "object");
        schema.put("properties", properties);
        schema.put("required", required);
        schema.put("additionalProperties", false);
        return schema;
    }
}
