package dev.oddbeacon.server.searches;

import com.fasterxml.jackson.annotation.JsonProperty;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.server.catalogue.ExclusionFile;
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

    private static final String REPLACEMENT = "replacement";
    private static final String WORKLIST = "worklist";

    private record File(@JsonProperty(SEARCHES) Map<String, Map<String, Object>> searches) {}

    /** What a file in a repository may hold. */
    private record Followed(
            @JsonProperty(SEARCHES) Map<String, Map<String, Object>> searches,
            @JsonProperty(ExclusionFile.SETS) Map<String, ExclusionFile.Set> sets) {}

    /** What a file in a repository holds. */
    record InRepository(Map<String, SavedSearch.Change> searches, Map<String, ExclusionSetInfo.Change> sets) {}

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
            if (search.replacement() != null) {
                entry.put(REPLACEMENT, written(search.replacement()));
            }
            if (search.worklist()) {
                entry.put(WORKLIST, true);
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
        return changes(file.searches, of);
    }

    private static Map<String, SavedSearch.Change> changes(Map<String, Map<String, Object>> searches, String of) {
        Map<String, SavedSearch.Change> changes = new LinkedHashMap<>();
        searches.forEach((name, entry) -> changes.put(name, change(name, entry == null ? Map.of() : entry, of)));
        return changes;
    }

    /**
     * Reads a file of a repository, which may hold exclusion sets as well.
     *
     * @throws BadRequestException if it is wrong, with the line or the name, and the reason
     */
    static InRepository readInRepository(String yaml) {
        String both = SEARCHES + ": or " + ExclusionFile.SETS + ":";
        Followed file = YamlFiles.read(
                yaml, Followed.class, "A file has " + both + " and below it, for each of them, its name.");
        if (file == null || file.searches == null && file.sets == null) {
            throw new BadRequestException("The file has no " + both + " Nothing was changed.");
        }
        return new InRepository(
                file.searches == null ? Map.of() : changes(file.searches, SavedSearches.EVERYBODY),
                file.sets == null ? Map.of() : ExclusionFile.changes(file.sets));
    }

    private static SavedSearch.Change change(String search, Map<String, Object> entry, String of) {
        Map<String, List<String>> parameters = new TreeMap<>();
        Map<String, Object> rest = new LinkedHashMap<>(entry);
        Optional<String> description = text(search, "description", rest);
        String subject = text(search, "subject", rest)
                .orElseThrow(
                        () -> new BadRequestException(
                                "The search " + search
                                        + " in the file has no subject: lines, files, symbols, commits or scope. Nothing was changed."));
        text(search, "text", rest).ifPresent(text -> parameters.put(TEXT, List.of(text)));
        Object scope = rest.remove("scope");
        Optional<SavedSearch.Instead> replacement =
                Optional.ofNullable(rest.remove(REPLACEMENT)).map(given -> replacement(search, given));
        Optional<Boolean> worklist = text(search, WORKLIST, rest).map("true"::equals);
        rest.forEach((name, value) -> parameters.put(name, texts(search, name, value)));
        if (scope != null) {
            if (!(scope instanceof Map<?, ?> parts)) {
                throw new BadRequestException(
                        "The scope of the search " + search + " in the file has no parts. Nothing was changed.");
            }
            parts.forEach((name, value) ->
                    parameters.put(part(search, String.valueOf(name)), texts(search, String.valueOf(name), value)));
        }
        return new SavedSearch.Change(
                of,
                description.orElse(null),
                subject,
                parameters,
                replacement.orElse(null),
                worklist.orElse(null),
                null);
    }

    private static Map<String, Object> written(SavedSearch.Instead replacement) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("with", replacement.with());
        if (Boolean.TRUE.equals(replacement.keepCase())) {
            entry.put("keep-case", true);
        }
        Optional.ofNullable(replacement.in()).ifPresent(in -> entry.put("in", in));
        if (Boolean.TRUE.equals(replacement.mentions())) {
            entry.put("mentions", true);
        }
        return entry;
    }

    private static SavedSearch.Instead replacement(String search, Object given) {
        Map<String, Object> rest = new LinkedHashMap<>();
        if (given instanceof Map<?, ?> parts) {
            parts.forEach((name, value) -> rest.put(String.valueOf(name), value));
        } else {
            rest.put("with", given);
        }
        SavedSearch.Instead replacement = new SavedSearch.Instead(
                text(search, "with", rest).orElse(null),
                text(search, "keep-case", rest).map("true"::equals).orElse(null),
                text(search, "in", rest).orElse(null),
                text(search, "mentions", rest).map("true"::equals).orElse(null));
        if (!rest.isEmpty()) {
            throw new BadRequestException("The replacement of the search " + search + " in the file has no \""
                    + rest.keySet().iterator().next()
                    + "\". It can have with, keep-case, in and mentions. Nothing was changed.");
        }
        return replacement;
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
