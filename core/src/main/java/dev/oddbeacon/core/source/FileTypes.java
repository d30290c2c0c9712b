package dev.oddbeacon.core.source;

import dev.oddbeacon.core.text.Split;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

/**
 * The type of a file: by its name, as {@code file-types.txt} lists them, and by what its content says where a name is
 * shared by several types, says little, or has no ending.
 */
public final class FileTypes {
    /** The type of a file that neither its name nor its content tells. */
    public static final String TEXT = "text";
    /** The type of a file without text, unless its name says more. */
    public static final String BINARY = "binary";

    private static final String SOURCE = "file-types.txt";
    private static final Set<String> COPIES =
            Set.of("in", "dist", "sample", "example", "template", "orig", "bak", "old", "default");
    private static final Set<String> CPP_SOURCES = Set.of("cc", "cpp", "cxx", "c++");
    /** Endings that any type may have. */
    private static final Set<String> OF_ANY_TYPE =
            Set.of("inc", "def", "tbl", "cgi", "fcgi", "lock", "conf", "config", "cnf", "rc", "map");
    /** Hints that need support by the file's name. */
    private static final Set<Hint> NEED_A_NAME = Set.of(Hint.C, Hint.CPP, Hint.OBJECTIVEC, Hint.MATLAB);

    private static final Set<String> PARTS_OF_SOURCES = Set.of("inc", "def", "tbl");
    private static final List<FileType> ALL = new ArrayList<>();
    private static final Map<String, String> BY_NAME = new HashMap<>();
    private static final Map<String, String> BY_EXACT_NAME = new HashMap<>();
    private static final Map<String, String> BY_ENDING = new HashMap<>();
    private static final Map<String, String> BY_START = new HashMap<>();
    private static final Map<String, String> BY_INTERPRETER = new HashMap<>();

    static {
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                Objects.requireNonNull(FileTypes.class.getResourceAsStream(SOURCE)), StandardCharsets.UTF_8))) {
            in.lines().filter(line -> !line.startsWith("#") && !line.isBlank()).forEach(FileTypes::add);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private FileTypes() {}

    private static void add(String line) {
        String[] columns = Split.parts(line, '|').toArray(String[]::new);
        String[] name = Split.parts(columns[0].strip(), ' ', 2).toArray(String[]::new);
        FileType type = new FileType(name[0], name[1], words(columns[1]), words(columns[2]));
        ALL.add(type);
        type.interpreters().forEach(interpreter -> BY_INTERPRETER.put(interpreter, type.name()));
        for (String pattern : type.names()) {
            String lower = pattern.toLowerCase(Locale.ROOT);
            boolean isInCapitals = pattern.length() > 1 && pattern.chars().allMatch(c -> Character.isUpperCase(c));
            String taken = isInCapitals
                    ? BY_EXACT_NAME.put(pattern, type.name())
                    : lower.startsWith("*.")
                            ? BY_ENDING.put(lower.substring(2), type.name())
                            : lower.endsWith("*")
                                    ? BY_START.put(lower.substring(0, lower.length() - 1), type.name())
                                    : BY_NAME.put(lower, type.name());
            if (taken != null) {
                throw new IllegalStateException(
                        SOURCE + ": " + pattern + " stands at " + taken + " and at " + type.name());
            }
        }
    }

    private static List<String> words(String column) {
        return Split.words(column);
    }

    /** All types, by name. */
    public static List<FileType> all() {
        return List.copyOf(ALL);
    }

    /** Whether there is a type of a name. */
    public static boolean isKnown(String name) {
        return name.equals(BINARY) || ALL.stream().anyMatch(type -> type.name().equals(name));
    }

    static Optional<String> byInterpreter(String interpreter) {
        return Optional.ofNullable(BY_INTERPRETER.get(interpreter));
    }

    /** The type of a file by its path alone: the file may be gone. */
    public static String ofPath(String path) {
        return of(path, Signs.NONE, true, _ -> false);
    }

    /**
     * The type of a file.
     *
     * @param signs what its content says; {@link Signs#NONE} for a file without text
     * @param isText whether it has a text
     * @param exists whether there is a file of a path
     */
    public static String of(String path, Signs signs, boolean isText, Predicate<String> exists) {
        String name = path.substring(path.lastIndexOf('/') + 1).toLowerCase(Locale.ROOT);
        String original = path.substring(path.lastIndexOf('/') + 1);
        Optional<String> byName =
                Optional.ofNullable(BY_EXACT_NAME.get(original)).or(() -> byName(name));
        if (!isText) {
            return byName.filter("image"::equals).orElse(BINARY);
        }
        String ending = ending(name);
        Optional<String> byContent = NEED_A_NAME.contains(signs.hint()) && !PARTS_OF_SOURCES.contains(ending)
                ? Optional.empty()
                : signs.hint().type();
        return switch (ending) {
            case "h" -> isCpp(path, signs, exists) ? "cpp" : signs.hint() == Hint.OBJECTIVEC ? "objectivec" : "c";
            case "ts" -> signs.hint() == Hint.XML ? "xml" : "typescript";
            case "m" -> signs.hint() == Hint.MATLAB ? "matlab" : "objectivec";
            case "xml" -> signs.hint() == Hint.SVG ? "svg" : "xml";
            case "1", "2", "3", "4", "5", "6", "7", "8" -> byContent.orElse(TEXT);
            default ->
                byName.isEmpty() || OF_ANY_TYPE.contains(ending) && !byNameAlone(name)
                        ? byContent.or(() -> byName).orElse(TEXT)
                        : byName.get();
        };
    }

    private static boolean byNameAlone(String name) {
        return BY_NAME.containsKey(name);
    }

    private static Optional<String> byName(String name) {
        String found = BY_NAME.get(name);
        for (int dot = name.indexOf('.'); found == null && dot >= 0; dot = name.indexOf('.', dot + 1)) {
            found = BY_ENDING.get(name.substring(dot + 1));
        }
        for (int dot = name.lastIndexOf('.'); found == null && dot > 0; dot = name.lastIndexOf('.', dot - 1)) {
            found = BY_START.get(name.substring(0, dot + 1));
        }
        if (found == null && COPIES.contains(ending(name))) {
            return byName(name.substring(0, name.lastIndexOf('.')));
        }
        return Optional.ofNullable(found);
    }

    private static String ending(String name) {
        int dot = name.lastIndexOf('.');
        return dot < 0 ? "" : name.substring(dot + 1);
    }

    /** A header that says nothing goes with the source file of its name. */
    private static boolean isCpp(String path, Signs signs, Predicate<String> exists) {
        String stem = path.substring(0, path.lastIndexOf('.') + 1);
        return signs.hint() == Hint.CPP
                || signs.hint() != Hint.OBJECTIVEC
                        && CPP_SOURCES.stream().anyMatch(ending -> exists.test(stem + ending));
    }
}
