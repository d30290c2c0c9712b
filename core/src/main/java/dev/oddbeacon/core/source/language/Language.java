package dev.oddbeacon.core.source.language;

import dev.oddbeacon.core.source.Region;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * What is known of a language: its profile. Made by {@link ProfileReader} from a file {@code NAME.profile}; which
 * there are says {@code languages.txt}. Immutable.
 *
 * @param types of files that are written in it
 * @param letters characters of names besides letters, digits and those beyond ASCII
 * @param beginnings characters that only begin a name
 * @param endings characters that only end a name
 * @param words those with a meaning
 * @param ignoresCase whether words with a meaning may be written in any case
 * @param structure how declarations are found
 * @param flags what is special about its structure
 * @param separator what stands between the names of what holds a declaration, in writing
 * @param embedded for markup: the languages inside certain elements
 */
public record Language(
        String name,
        List<String> types,
        String letters,
        String beginnings,
        String endings,
        Map<String, Word> words,
        boolean ignoresCase,
        List<SpanForm> forms,
        Structure structure,
        Set<String> flags,
        Map<String, String> embedded,
        String separator,
        WordTable table) {
    /** The form of a language's declarations. */
    public enum Structure {
        /** Nothing is declared. */
        NONE,
        /** Braces; a type stands before a name, all are members of types: {@code int depth;}. */
        MEMBERS,
        /** The same, with declarators: {@code int *depth, soundings[7];}. */
        DECLARATORS,
        /** Braces; a word says what is declared: {@code sub depth}. */
        KEYWORDS,
        /** The same; members of types are told by their shape: {@code depth() {}}. */
        SCRIPT,
        /** The same; fields are names followed by a type: {@code depth int}. */
        FIELDS_BY_TYPE,
        /** The same; fields are names followed by a colon: {@code depth: i32}. */
        FIELDS_BY_COLON,
        /** The same; fields are names behind a dollar sign: {@code $depth}. */
        DOLLAR_FIELDS,
        /** The same; a word announces fields: {@code val depth}. */
        FIELDS_BY_WORD,
        /** Blocks are indented. */
        INDENT,
        /** Kotlin's, of its own. */
        KOTLIN,
        /** Scala's, with braces and without. */
        SCALA,
        /** Blocks are closed by a word, and statements end by what follows. */
        LUA,
        /** Blocks are closed by a word, and statements end with their lines. */
        RUBY,
        /** Commands. */
        SHELL,
        /** Statements that create things, ended by semicolons. */
        STATEMENTS,
        /** Names of rules in front of braces. */
        SELECTORS,
        /** Each line is a setting of its own. */
        LINES,
        /** Keys and values, in braces. */
        KEYS,
        /** Keys and values, indented. */
        INDENTED_KEYS,
        /** Elements in angle brackets. */
        MARKUP,
        /** Headings. */
        HEADINGS;

        /** Whether a word in front says what is declared, in braces. */
        boolean isByKeyword() {
            return switch (this) {
                case KEYWORDS, SCRIPT, FIELDS_BY_TYPE, FIELDS_BY_COLON, DOLLAR_FIELDS, FIELDS_BY_WORD, KOTLIN -> true;
                default -> false;
            };
        }
    }

    private static final Map<String, Language> ALL = new TreeMap<>();
    private static final Map<String, Language> BY_TYPE = new HashMap<>();

    static {
        for (String name : lines("languages.txt")) {
            Language language = ProfileReader.read(name, lines(name + ".profile"));
            ALL.put(name, language);
            for (String type : language.types) {
                if (BY_TYPE.put(type, language) != null) {
                    throw new IllegalStateException(
                            name + ".profile: another profile has the type " + type + " already");
                }
            }
        }
    }

    private static List<String> lines(String resource) {
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                Objects.requireNonNull(Language.class.getResourceAsStream(resource), resource),
                StandardCharsets.UTF_8))) {
            return in.lines()
                    .map(String::strip)
                    .filter(line -> !line.isEmpty() && !line.startsWith("# ") && !line.equals("#"))
                    .toList();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** All languages by name. */
    public static Map<String, Language> all() {
        return Map.copyOf(ALL);
    }

    /** The language of a type of files; empty if there is no profile for it. */
    public static Optional<Language> ofType(String type) {
        return Optional.ofNullable(BY_TYPE.get(type));
    }

    public static Optional<Language> named(String name) {
        return Optional.ofNullable(ALL.get(name));
    }

    /** Whether a byte of UTF-8 may be part of a name. */
    public boolean isLetter(byte c) {
        return c < 0 || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || letters.indexOf(c) >= 0;
    }

    /** Whether words in code are names of symbols; in prose and settings they are just words. */
    public boolean hasNames() {
        return switch (structure) {
            case LINES -> has("targets");
            case KEYS, INDENTED_KEYS, MARKUP, HEADINGS, NONE -> false;
            default -> true;
        };
    }

    /** Whether a word may be a name: it is not reserved. */
    public boolean isName(String word) {
        return hasNames()
                && !word.isEmpty()
                && !(word.charAt(0) >= '0' && word.charAt(0) <= '9')
                && words.getOrDefault(ignoresCase ? word.toLowerCase(Locale.ROOT) : word, Word.NONE)
                        .isName();
    }

    /**
     * Whether a text may hold a comment of this language: whether what begins one stands where one may begin, be it in
     * a string.
     */
    public boolean mayHoldComment(String text) {
        return forms.stream().filter(form -> form.region() == Region.COMMENT).anyMatch(form -> form.mayBeginIn(text));
    }

    public boolean has(String flag) {
        return flags.contains(flag);
    }
}
