package dev.oddbeacon.server.searches;

import com.fasterxml.jackson.annotation.JsonProperty;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.YamlFiles;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * Saved searches as a YAML file that reads well in a diff:
 *
 * <pre>
 *   saved-searches:
 *     feet-in-signs:
 *       description: Depths that still come in feet
 *       subject: lines
 *       text: depthFeet
 *       reading: plain
 *       scope:
 *         not-trait: documentation
 * </pre>
 */
final class SavedSearchFile {
    private static final String SEARCHES = "saved-searches";
    private static final String TEXT = "q"; // the parameter that a file calls text
    /** The parts of a scope as a file names them, by their parameters. */
    private static final SortedMap<String, String> SCOPE = new TreeMap<>(Arrays.stream(ScopePart.values())
            .collect(
                    Collectors.toMap(ScopePart::parameter, part -> part.option().substring(2))));

    private record File(@JsonProperty(SEARCHES) Map<String, Map<String, Object>> searches) {}

    private SavedSearchFile() {}

    static String write(List<SavedSearch> searches) {
        Map<String, Map<String, Object>> byName = new LinkedHashMap<>();
        for (SavedSearch search : searches) {
            Map<String, Object> entry = new LinkedHashMap<>();
            Map<String, Object> scope = new LinkedHashMap<>();
            if (!search.description().isEmpty()) {
                entry.put("description", search.description());
            }
            entry.put("subject", search.subject());
            Optional.ofNullable(search.parameters().get(TEXT)).ifPresent(text -> entry.put("text", text.getFirst()));
            search.parameters().forEach((name, values) -> {
                if (!name.equals(TEXT)) {
                    (SCOPE.containsKey(name) ? scope : entry)
                            .put(SCOPE.getOrDefault(name, name), values.size() == 1 ? values.getFirst() : values);
                }
            });
            if (!scope.isEmpty()) {
                entry.put("scope", scope);
            }
            byName.put(search.name(), entry);
        }
        return YamlFiles.write(new File(byName));
    }

    /** @throws BadRequestException if it is wrong, with the line or the name, and the reason */
    static Map<String, SavedSearch.Change> read(String yaml, String of) {
        File file = YamlFiles.read(
                yaml, File.class, "A file has " + SEARCHES + ": and below it, for each search, its name.");
        if (file == null || file.searches == null || file.searches.isEmpty()) {
            throw new BadRequestException(
                    "The file has no searches. It begins with \"" + SEARCHES
                            + ":\", and below it, for each search, its name with subject, text and scope. Nothing was changed.");
        }
        Map<String, SavedSearch.Change> changes = new LinkedHashMap<>();
        file.searches.forEach((name, entry) -> changes.put(name, change(name, entry == null ? Map.of() : entry, of)));
        return changes;
    }

    private static SavedSearch.Change change(String search, Map<String, Object> entry, String of) {
        Map<String, List<String>> parameters = new TreeMap<>();
        Map<String, Object> rest = new LinkedHashMap<>(entry);
        Optional<String> description = text(search, "description", rest);
        String subject = text(search, "subject", rest)
                .orElseThrow(() -> new BadRequestException("The search " + search
                        + " in the file has no subject: lines, files, symbols or commits. Nothing was changed."));
        text(search, "text", rest).ifPresent(text -> parameters.put(TEXT, List.of(text)));
        Object scope = rest.remove("scope");
        rest.forEach((name, value) -> parameters.put(name, texts(search, name, value)));
        if (scope != null) {
            if (!(scope instanceof Map<?, ?> parts)) {
                throw new BadRequestException(
                        "The scope of the search " + search + " in the file has no parts. Nothing was changed.");
            }
            parts.forEach((name, value) ->
                    parameters.put(part(search, String.valueOf(name)), texts(search, String.valueOf(name), value)));
        }
        return new SavedSearch.Change(of, description.orElse(null), subject, parameters, null);
    }

    /** The parameter of a part of a scope that a file names. */
    private static String part(String search, String name) {
        return SCOPE.entrySet().stream()
                .filter(part -> part.getValue().equals(name))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElseThrow(() -> new BadRequestException("The scope of the search " + search
                        + " in the file has no \"" + name + "\". It can have "
                        + SCOPE.values().stream().sorted().collect(Collectors.joining(", "))
                        + ". Nothing was changed."));
    }

    private static Optional<String> text(String search, String name, Map<String, Object> entry) {
        return texts(search, name, entry.remove(name)).stream().findFirst();
    }

    private static List<String> texts(String search, String name, Object value) {
        return switch (value) {
            case null -> List.of();
            case List<?> several -> several.stream().map(String::valueOf).toList();
            case Map<?, ?> _ ->
                throw new BadRequestException("\"" + name + "\" of the search " + search
                        + " in the file is neither a text nor a list of texts. Nothing was changed.");
            default -> List.of(String.valueOf(value));
        };
    }
}
