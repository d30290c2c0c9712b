package dev.oddbeacon.server.web;

import java.util.List;
import java.util.stream.IntStream;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.dataformat.yaml.YAMLMapper;
import tools.jackson.dataformat.yaml.YAMLWriteFeature;

/** What people keep as YAML under version control: it reads well in a diff, and a mistake is told with its line. */
public final class YamlFiles {
    private static final YAMLMapper YAML = YAMLMapper.builder()
            .disable(YAMLWriteFeature.WRITE_DOC_START_MARKER)
            .enable(YAMLWriteFeature.MINIMIZE_QUOTES)
            .enable(YAMLWriteFeature.LITERAL_BLOCK_STYLE)
            .disable(YAMLWriteFeature.SPLIT_LINES)
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.ACCEPT_SINGLE_VALUE_AS_ARRAY)
            .build();

    private YamlFiles() {}

    public static String write(Object file) {
        return YAML.writeValueAsString(file);
    }

    /**
     * @param has what there can be, for whoever wrote something else
     * @throws BadRequestException if it is wrong, with the line and the reason
     */
    public static <T> T read(String yaml, Class<T> type, String has) {
        try {
            return YAML.readValue(yaml, type);
        } catch (JacksonException e) {
            throw new BadRequestException("The file cannot be read. " + reason(e, yaml, has) + " Nothing was changed.");
        }
    }

    private static String reason(JacksonException e, String yaml, String has) {
        if (e instanceof UnrecognizedPropertyException unknown) {
            List<String> lines = yaml.lines().map(String::strip).toList();
            int line = IntStream.range(0, lines.size())
                            .filter(i -> lines.get(i).startsWith(unknown.getPropertyName() + ":"))
                            .findFirst()
                            .orElse(-1)
                    + 1;
            return "Line " + line + ": \"" + unknown.getPropertyName() + "\" is not known. " + has;
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
}
