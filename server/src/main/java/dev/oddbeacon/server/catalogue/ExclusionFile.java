package dev.oddbeacon.server.catalogue;

import com.fasterxml.jackson.annotation.JsonProperty;
import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.YamlFiles;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

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
    public static final String SETS = "exclusion-sets";

    private record File(@JsonProperty(SETS) Map<String, Set> sets) {}

    /** A set as a file has it. */
    public record Set(
            String description, @JsonProperty("by-default") Boolean byDefault, String patterns) {}

    private ExclusionFile() {}

    public static String write(List<ExclusionSetInfo> sets) {
        Map<String, Set> byName = new LinkedHashMap<>();
        sets.forEach(set -> byName.put(
                set.name(),
                new Set(
                        set.description(),
                        set.byDefault(),
                        set.patterns().endsWith("\n") ? set.patterns() : set.patterns() + "\n")));
        return YamlFiles.write(new File(byName));
    }

    /** @throws BadRequestException if it is wrong, with the line and the reason */
    public static Map<String, ExclusionSetInfo.Change> read(String yaml) {
        File file = YamlFiles.read(yaml, File.class, "A set has description, by-default and patterns.");
        if (file == null || file.sets == null || file.sets.isEmpty()) {
            throw new BadRequestException(
                    "The file has no sets. It begins with \"" + SETS
                            + ":\", and below it, for each set, its name with description, by-default and patterns. Nothing was changed.");
        }
        return changes(file.sets);
    }

    /** @throws BadRequestException if one has no patterns */
    public static Map<String, ExclusionSetInfo.Change> changes(Map<String, Set> sets) {
        Map<String, ExclusionSetInfo.Change> changes = new LinkedHashMap<>();
        sets.forEach((name, set) -> {
            if (set == null || set.patterns == null) {
                throw new BadRequestException("The set " + name + " in the file has no patterns. Nothing was changed.");
            }
            changes.put(name, new ExclusionSetInfo.Change(set.description, set.byDefault, set.patterns, null));
        });
        return changes;
    }
}
