package dev.oddbeacon.agents;

import java.util.List;
import java.util.Map;
import java.util.Objects;

/** What an agent gave to a tool or a prompt. */
record Given(Map<String, Object> values) {
    static Given of(Map<String, Object> values) {
        return new Given(values == null ? Map.of() : values);
    }

    /** Empty if it is absent. */
    String text(String name) {
        return Objects.toString(values.get(name), "");
    }

    List<String> texts(String name) {
        return values.get(name) instanceof List<?> list
                ? list.stream().map(String::valueOf).toList()
                : List.of();
    }

    int number(String name, int otherwise) {
        return values.get(name) instanceof Number number ? number.intValue() : otherwise;
    }

    /** @throws RefusedException if it is absent */
    String needed(String name) {
        if (text(name).isEmpty()) {
            throw new RefusedException("The argument \"" + name + "\" is missing.");
        }
        return text(name);
    }

    Budget budget() {
        return new Budget(Math.clamp(number("tokens", Budget.DEFAULT), Budget.LEAST, Budget.MOST));
    }
}
