package dev.oddbeacon.server.catalogue;

import com.fasterxml.jackson.annotation.JsonProperty;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.dataformat.yaml.YAMLMapper;
import tools.jackson.dataformat.yaml.YAMLWriteFeature;

/**
 * Exclusion sets as a YAML file that reads well in a diff:
 *
 * <pre>
 *   exclusion-sets:
 *     translations:
 *       description: Texts of the interface
 *       by-default: false
 *       patterns: |
 *         locales/
 *         *.po
 * </pre>
 */
public final class ExclusionFile {
    private static final YAMLMapper YAML = YAMLMapper.builder()
            .disable(YAMLWriteFeature.WRITE_DOC_START_MARKER)
            .enable(YAMLWriteFeature.MINIMIZE_QUOTES)
            .enable(YAMLWriteFeature.LITERAL_BLOCK_STYLE)
            .disable(YAMLWriteFeature.SPLIT_LINES)
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .build();
    private static final String SETS = "exclusion-sets";

    private record File(@JsonProperty(SETS) Map<String, Set> sets) {}

    private record Set(
            String description, @JsonProperty("by-default") Boolean byDefault, String patterns) {}

    private ExclusionFile() {}

    private static String reason(JacksonException e, String yaml) {
        if (e instanceof UnrecognizedPropertyException unknown) {
            List<String> lines = yaml.lines().map(String::strip).toList();
            int line = IntStream.range(0, lines.size())
                            .filter(i -> lines.get(i).startsWith(unknown.getPropertyName() + ":"))
                            .findFirst()
                            .orElse(-1)
                    + 1;
            return "Line " + line + ": \"" + unknown.getPropertyName()
                    + "\" is not known. A set has description, by-default and patterns.";
        }
        String where = e.getLocation() == null || e.getLocation().getLineNr() < 1
                ? ""
                : "Line " + e.getLocation().getLineNr() + ": ";
        String expected = e.getOriginalMessage()
                .lines()
                .map(String::strip)
                .filter(text -> text.startsWith("expected") || text.startsWith("found") || text.startsWith("could not"))
                .findFirst()
                .orElseGet(() -> e.getOriginalMessage().lines().findFirst().orElse("it is no YAML"));
        return where + expected + ".";
    }

    public static String write(List<ExclusionSetInfo> sets) {
        Map<String, Set> byName = new LinkedHashMap<>();
        sets.forEach(set -> byName.put(
                set.name(),
                new Set(
                        set.description(),
                        set.byDefault(),
                        set.patterns().endsWith("\n") ? set.patterns() : set.patterns() + "\n")));
        return YAML.writeValueAsString(new File(byName));
    }

    /** @throws BadRequestException if it is wrong, with the line and the reason */
    public static Map<String, ExclusionSetInfo.Change> read(String yaml) {
        File file;
        try {
            file = YAML.readValue(yaml, File.class);
        } catch (JacksonException e) {
            throw new BadRequestException("The file cannot be read. " + reason(e, yaml) + " Nothing was changed.");
        }
        if (file == null || file.sets == null || file.sets.isEmpty()) {
            throw new BadRequestException(
                    "The file has no sets. It begins with \"" + SETS
                            + ":\", and below it, for each set, its name with description, by-default and patterns. Nothing was changed.");
        }
        Map<String, ExclusionSetInfo.Change> changes = new LinkedHashMap<>();
        file.sets.forEach((name, set) -> {
            if (set == null || set.patterns == null) {
                throw new BadRequestException("The set " + name + " in the file has no patterns. Nothing was changed.");
            }
            changes.put(name, new ExclusionSetInfo.Change(set.description, set.byDefault, set.patterns, null));
        });
        return changes;
    }
}
