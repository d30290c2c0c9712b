package dev.oddbeacon.agents;

import java.util.ArrayList;
import java.util.List;

/** Asks the service's HTTP interface, as whoever an agent works for. */
public interface Asker {
    /**
     * A question.
     *
     * @param path below {@code /api/v1/}, encoded
     */
    record Question(String path, List<Parameter> parameters) {
        /** @param parts of the path, not encoded */
        public static Question of(String... parts) {
            List<String> encoded = new ArrayList<>();
            for (String part : parts) {
                encoded.add(Links.encoded(part).replace("+", "%20"));
            }
            return new Question(String.join("/", encoded), new ArrayList<>());
        }

        /** Adds a parameter unless it is null or empty. */
        public Question with(String name, Object value) {
            if (value != null && !value.toString().isEmpty()) {
                parameters.add(new Parameter(name, value.toString()));
            }
            return this;
        }

        public Question withAll(String name, List<String> values) {
            values.forEach(value -> with(name, value));
            return this;
        }
    }

    record Parameter(String name, String value) {}

    /**
     * Gets an answer.
     *
     * @throws RefusedException if the service refuses the question, with what it says
     */
    <T> T get(Question question, Class<T> type);

    /** The address of the console, ending with a slash. */
    String console();
}
