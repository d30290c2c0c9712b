package dev.oddbeacon.api;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.RecordComponent;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The console's types of the wire format are those of the records here. */
class WireTypesTest {
    private static final Path TYPES = Path.of("../console/src/wire.ts");
    private static final Pattern INTERFACE = Pattern.compile("export interface (\\w+) \\{\n(.*?)\n\\}", Pattern.DOTALL);
    private static final Pattern FIELD = Pattern.compile("^ {2}(\\w+)\\??:", Pattern.MULTILINE);

    /** What the console calls otherwise, because several records are called the same. */
    private static final Map<String, String> NAMES = Map.ofEntries(
            Map.entry("HostKey", "Key"),
            Map.entry("RosterRule", "NewRoster.Rule"),
            Map.entry("RosterEntry", "RosterPreview.Entry"),
            Map.entry("SeesPerson", "WhoSees.Person"),
            Map.entry("HealthFinding", "Health.Finding"),
            Map.entry("HealthFailure", "Health.Failure"),
            Map.entry("SavedSearchChange", "SavedSearch.Change"),
            Map.entry("FoundResult", "Result"),
            Map.entry("ReplacementPreview", "Replacement.Preview"),
            Map.entry("ReplacedFile", "Replacement.File"),
            Map.entry("ReplacementChange", "Replacement.Change"),
            Map.entry("LeftFile", "Replacement.Left"),
            Map.entry("ReplacedText", "Replacement.After"),
            Map.entry("OutsideScope", "Replacement.Outside"),
            Map.entry("ReplacedSymbol", "Replacement.Symbol"),
            Map.entry("WorklistItem", "Worklist.Item"),
            Map.entry("WorklistItems", "Worklist.Items"),
            Map.entry("WorklistChange", "Worklist.Change"),
            Map.entry("WorklistLeft", "Worklist.Left"),
            Map.entry("WorklistDay", "Worklist.Day"),
            Map.entry("WatchChange", "Watch.Change"),
            Map.entry("WatchNotice", "Watch.Notice"),
            Map.entry("WatchNotices", "Watch.Notices"),
            Map.entry("WatchDelivery", "Watch.Delivery"),
            Map.entry("Overview", "Overview"),
            Map.entry("HealthProcess", "Health.Worker"),
            Map.entry("FoundFile", "FilesAnswer.File"),
            Map.entry("FoundSymbol", "SymbolsAnswer.Symbol"),
            Map.entry("CallEnd", "CallsAnswer.End"),
            Map.entry("CallSite", "CallsAnswer.Site"),
            Map.entry("OutlineSymbol", "Outline.Symbol"),
            Map.entry("Counterparts", "CounterpartsAnswer"),
            Map.entry("Translations", "TranslationsAnswer"),
            Map.entry("TreeEntry", "Tree.Entry"),
            Map.entry("PlaceFile", "PlacesAnswer.File"),
            Map.entry("Repository", "RepositoryInfo"),
            Map.entry("SecondLook", "SecondLooks.Look"),
            Map.entry("LeftOut", "LeftOut.Set"),
            Map.entry("ExclusionSet", "ExclusionSetInfo"),
            Map.entry("ExclusionChange", "ExclusionSetInfo.Change"),
            Map.entry("PatternEffect", "ExclusionPreview.Pattern"),
            Map.entry("ChangedLine", "CommitsAnswer.Line"),
            Map.entry("FoundCommit", "CommitsAnswer.Commit"),
            Map.entry("CommitFacet", "CommitsAnswer.Facet"),
            Map.entry("OverTimeEvent", "OverTimeAnswer.Event"),
            Map.entry("OverTimeOfRepository", "OverTimeAnswer.OfRepository"),
            Map.entry("LogEntry", "LogAnswer.Entry"),
            Map.entry("DiffLine", "DiffAnswer.Line"),
            Map.entry("DiffHunk", "DiffAnswer.Hunk"),
            Map.entry("DiffFile", "DiffAnswer.File"));

    /** What pages ask for; no records. */
    private static final List<String> QUESTIONS = List.of("Search", "FileQuest", "SymbolQuest", "CommitQuest");

    /** The names of the components of all records, by the record's name within its file. */
    private static Map<String, List<String>> records() throws IOException, URISyntaxException {
        Path classes =
                Path.of(ScopePart.class.getResource("ScopePart.class").toURI()).getParent();
        Map<String, List<String>> records = new LinkedHashMap<>();
        try (Stream<Path> files = Files.list(classes)) {
            for (Path file : files.sorted().toList()) {
                String name = file.getFileName().toString().replace(".class", "");
                Class<?> type = classOf("dev.oddbeacon.api." + name);
                if (type.isRecord()) {
                    records.put(
                            name.replace('$', '.'),
                            Arrays.stream(type.getRecordComponents())
                                    .map(RecordComponent::getName)
                                    .toList());
                }
            }
        }
        return records;
    }

    private static Class<?> classOf(String name) {
        try {
            return Class.forName(name);
        } catch (ClassNotFoundException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void ofTheConsoleHaveNoFieldThatNoRecordHas() throws Exception {
        Map<String, List<String>> records = records();
        List<String> checked = new ArrayList<>();
        Matcher types = INTERFACE.matcher(Files.readString(TYPES));
        while (types.find()) {
            String type = types.group(1);
            if (QUESTIONS.contains(type)) {
                continue;
            }
            List<String> fields = FIELD.matcher(types.group(2))
                    .results()
                    .map(field -> field.group(1))
                    .toList();
            assertThat(fields).as(type).isNotEmpty();
            String name = NAMES.getOrDefault(type, type);
            List<List<String>> candidates = records.entrySet().stream()
                    .filter(entry ->
                            entry.getKey().equals(name) || entry.getKey().endsWith("." + name))
                    .map(Map.Entry::getValue)
                    .toList();
            assertThat(candidates)
                    .as("records that %s may be, with the fields %s", type, fields)
                    .anyMatch(components -> components.containsAll(fields));
            checked.add(type);
        }
        assertThat(checked).hasSizeGreaterThan(40);
    }

    @Test
    void ofTheConsoleKnowTheSamePartsOfAScope() throws IOException {
        String types = Files.readString(TYPES);
        int from = types.indexOf("export const scopeParts = [");
        List<String> parts = Pattern.compile("'(\\w+)'")
                .matcher(types.substring(from, types.indexOf(']', from)))
                .results()
                .map(part -> part.group(1))
                .toList();
        assertThat(parts)
                .containsExactlyInAnyOrderElementsOf(Arrays.stream(ScopePart.values())
                        .map(ScopePart::parameter)
                        .toList());
    }
}
