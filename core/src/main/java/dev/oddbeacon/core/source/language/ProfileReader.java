package dev.oddbeacon.core.source.language;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.SpanForm.Option;
import dev.oddbeacon.core.source.language.SpanForm.Shape;
import dev.oddbeacon.core.source.language.Word.Role;
import dev.oddbeacon.core.text.Split;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * Reads a profile. One thing a line, its words apart by blanks; {@code docs/adding-a-language.md} explains them:
 *
 * <pre>
 *   types NAME…                                  of files
 *   letters CHARS · beginnings CHARS · endings CHARS    of names, besides letters and digits
 *   ignore-case
 *   separator CHARS                              between the names of what holds a declaration
 *   comment|string START [END] [OPTION…]         options: nested multiline doubled line-start line-first word-start
 *                                                escape=C interpolate=OPEN prefix=A,B shape=NAME
 *   name START END                               a name in quotes
 *   reserved|modifiers|extends|statements|values|opens|opens-first|closes WORD…
 *   soft-modifiers WORD…                         modifiers that are names elsewhere
 *   declare WORD KIND · soft-declare WORD KIND   the word is followed by the name of a declaration
 *   structure NAME [FLAG…]
 *   embed ELEMENT LANGUAGE
 * </pre>
 */
final class ProfileReader {
    private final List<String> types = new ArrayList<>();
    private String letters = "_";
    private String beginnings = "";
    private String endings = "";
    private String separator = ".";
    private boolean ignoresCase;
    private final Map<String, Word> words = new HashMap<>();
    private final List<SpanForm> forms = new ArrayList<>();
    private Language.Structure structure = Language.Structure.NONE;
    private final Set<String> flags = new TreeSet<>();
    private final Map<String, String> embedded = new LinkedHashMap<>();

    private ProfileReader() {}

    /** @throws IllegalStateException with the profile, the line and what is wrong with it */
    static Language read(String name, List<String> lines) {
        ProfileReader reader = new ProfileReader();
        for (String line : lines) {
            try {
                reader.line(Split.words(line).toArray(String[]::new));
            } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
                throw new IllegalStateException(
                        name + ".profile: \"" + line + "\" is not understood: " + e.getMessage(), e);
            }
        }
        return new Language(
                name,
                List.copyOf(reader.types),
                reader.letters,
                reader.beginnings,
                reader.endings,
                Map.copyOf(reader.words),
                reader.ignoresCase,
                List.copyOf(reader.forms),
                reader.structure,
                Set.copyOf(reader.flags),
                Map.copyOf(reader.embedded),
                reader.separator,
                new WordTable(reader.words, reader.ignoresCase));
    }

    private void line(String[] part) {
        switch (part[0]) {
            case "types" -> types.addAll(Arrays.asList(part).subList(1, part.length));
            case "letters" -> letters = part[1];
            case "beginnings" -> beginnings = part[1];
            case "endings" -> endings = part[1];
            case "separator" -> separator = part[1];
            case "ignore-case" -> ignoresCase = true;
            case "comment" -> form(Region.COMMENT, part, EnumSet.noneOf(Option.class));
            case "string" -> form(Region.STRING, part, EnumSet.noneOf(Option.class));
            case "name" -> form(Region.CODE, part, EnumSet.of(Option.NAME));
            case "reserved" -> words(part, Role.RESERVED, false);
            case "modifiers" -> words(part, Role.MODIFIER, false);
            case "soft-modifiers" -> words(part, Role.MODIFIER, true);
            case "extends" -> words(part, Role.EXTENDS, false);
            case "soft-extends" -> words(part, Role.EXTENDS, true);
            case "statements" -> words(part, Role.STATEMENT, false);
            case "values" -> words(part, Role.VALUE, false);
            case "opens" -> words(part, Role.OPENS, false);
            case "opens-first" -> words(part, Role.OPENS_FIRST, false);
            case "closes" -> words(part, Role.CLOSES, false);
            case "declare" -> word(part[1], new Word(Role.DECLARES, kind(part[2]), false));
            case "soft-declare" -> word(part[1], new Word(Role.DECLARES, kind(part[2]), true));
            case "structure" -> {
                structure = Language.Structure.valueOf(
                        part[1].toUpperCase(Locale.ROOT).replace('-', '_'));
                flags.addAll(Arrays.asList(part).subList(2, part.length));
            }
            case "embed" -> embedded.put(part[1], part[2]);
            default -> throw new IllegalArgumentException("there is no \"" + part[0] + "\" in profiles");
        }
    }

    private static Kind kind(String label) {
        return label.equals("extension")
                ? Kind.EXTENSION
                : Kind.of(label).orElseThrow(() -> new IllegalArgumentException("there is no kind \"" + label + "\""));
    }

    private void words(String[] part, Role role, boolean isName) {
        for (int i = 1; i < part.length; i++) {
            word(part[i], new Word(role, Kind.SUPERTYPE, isName));
        }
    }

    private void word(String text, Word word) {
        if (words.put(text, word) != null) {
            throw new IllegalArgumentException("\"" + text + "\" has two meanings");
        }
    }

    private void form(Region region, String[] part, EnumSet<Option> options) {
        byte[] start = bytes(part[1]);
        byte[] end = {};
        int escape = -1;
        List<byte[]> interpolations = new ArrayList<>();
        Set<String> prefixes = new TreeSet<>();
        Shape shape = Shape.PLAIN;
        for (int i = 2; i < part.length; i++) {
            String value = part[i].substring(part[i].indexOf('=') + 1);
            if (part[i].startsWith("escape=")) {
                escape = value.charAt(0);
            } else if (part[i].startsWith("interpolate=")) {
                interpolations.add(bytes(value));
            } else if (part[i].startsWith("prefix=")) {
                prefixes.addAll(Split.parts(value, ','));
            } else if (part[i].startsWith("shape=")) {
                shape = Shape.valueOf(value.toUpperCase(Locale.ROOT).replace('-', '_'));
            } else if (i == 2 && !isOption(part[i])) {
                end = bytes(part[i]);
            } else {
                options.add(Option.valueOf(part[i].toUpperCase(Locale.ROOT).replace('-', '_')));
            }
        }
        forms.add(new SpanForm(
                region, start, end, escape, List.copyOf(interpolations), Set.copyOf(prefixes), options, shape));
    }

    private static boolean isOption(String text) {
        return Arrays.stream(Option.values())
                .anyMatch(option ->
                        option.name().equals(text.toUpperCase(Locale.ROOT).replace('-', '_')));
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
