package dev.oddbeacon.core.places;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.BiFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Reads the places that a text names: a build log, a stack trace, the output of a search. The forms that compilers,
 * test runners and interpreters of many languages share:
 *
 * <pre>
 *   src/plan/berth.c:48:12: error: ...        path:line:column, path:line
 *   [ERROR] /w/src/Planner.java:[48,12] ...   path:[line,column]
 *   src/fare.ts(48,12): error ...             path(line,column), path(line)
 *   File "tidewatch/surge.py", line 48        a path in quotes, then the word line
 *   at quillhaven.berth.Planner.assign(Planner.java:48)   a class, whose package says the folders
 * </pre>
 *
 * A path needs an ending or a slash, so that times of day and addresses are none.
 */
public final class PlaceParser {
    private static final int LONGEST_PATH = 1_000;
    private static final int LONGEST_LINE = 20_000;

    /** Characters of a path that stands bare; spaces end it. */
    private static final String PATH =
            "(?<path>(?:(?<![A-Za-z])[A-Za-z]:)?[^\\s\"'`<>|:*?()\\[\\]{},;=\\x00-\\x1f]{1," + LONGEST_PATH + "})";

    private static final String NUMBERS = "(?<line>[0-9]{1,8})(?:[:,.] ?(?<column>[0-9]{1,7}))?(?![0-9])";

    private record Form(Pattern pattern, BiFunction<Matcher, String, String> path) {
        Form(String regex) {
            this(Pattern.compile(regex), (_, found) -> found);
        }
    }

    private static final List<Form> FORMS = List.of(
            new Form(
                    Pattern.compile(
                            "(?<name>[\\p{L}_$][\\p{L}\\p{Nd}_$]*(?:\\.[\\p{L}_$<][\\p{L}\\p{Nd}_$<>]*)+)\\((?<path>[^\\s():]{1,200}):(?<line>[0-9]{1,8})(?<column>)\\)"),
                    PlaceParser::ofClass),
            new Form("[\"'](?<path>[^\"'\\x00-\\x1f]{1," + LONGEST_PATH
                    + "})[\"'],? (?:on )?line (?<line>[0-9]{1,8})(?:,? col(?:umn)? (?<column>[0-9]{1,7}))?"),
            new Form(PATH + ":\\[" + NUMBERS + "\\]"),
            new Form(PATH + "\\(" + NUMBERS + "\\)"),
            new Form(PATH + ":" + NUMBERS),
            new Form(PATH + "(?:, | on |: ?| )line " + NUMBERS));

    private PlaceParser() {}

    /**
     * Reads every place, in the order of the text; two forms never claim the same characters.
     *
     * @param most places; what follows is not read
     */
    public static List<Place> parse(String text, int most) {
        List<Place> places = new ArrayList<>();
        int number = 0;
        for (String line : (Iterable<String>) text.lines()::iterator) {
            number++;
            places.addAll(onLine(line.length() > LONGEST_LINE ? line.substring(0, LONGEST_LINE) : line, number));
            if (places.size() >= most) {
                return places.subList(0, most);
            }
        }
        return places;
    }

    private static List<Place> onLine(String line, int number) {
        if (line.chars().noneMatch(c -> c >= '0' && c <= '9')) {
            return List.of();
        }
        List<Place> places = new ArrayList<>();
        for (Form form : FORMS) {
            Matcher matcher = form.pattern.matcher(line);
            while (matcher.find()) {
                int start = matcher.start();
                int end = matcher.end();
                String path = form.path
                        .apply(matcher, matcher.group("path"))
                        .replaceFirst("^///", "/"); // what is left of file:///
                if (isPath(path) && places.stream().noneMatch(place -> place.start() < end && start < place.end())) {
                    String column = matcher.group("column");
                    places.add(new Place(
                            number,
                            start,
                            end,
                            line,
                            path,
                            Integer.parseInt(matcher.group("line")),
                            column == null || column.isEmpty() ? 0 : Integer.parseInt(column)));
                }
            }
        }
        places.sort(Comparator.comparingInt(Place::start));
        return places;
    }

    /** The package of a class says the folders: {@code a.b.C.run(C.java:1)} is in {@code a/b/C.java}. */
    private static String ofClass(Matcher matcher, String file) {
        String[] parts = matcher.group("name").split("\\.");
        StringBuilder path = new StringBuilder();
        for (String part : parts) {
            if (part.isEmpty()
                    || !Character.isLowerCase(part.codePointAt(0))
                    || path.length() + part.length() > LONGEST_PATH) {
                break;
            }
            path.append(part).append('/');
        }
        boolean isClass = path.length() > 0
                && parts.length > 1
                && path.chars().filter(c -> c == '/').count() < parts.length;
        return isClass ? path + file : file;
    }

    private static boolean isPath(String path) {
        String name = path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
        boolean hasEnding = name.lastIndexOf('.') > 0
                && name.length() - name.lastIndexOf('.') <= 12
                && name.chars().skip(name.lastIndexOf('.') + 1).anyMatch(Character::isLetter);
        return !name.isEmpty()
                && !path.contains("//")
                && (hasEnding || path.indexOf('/') >= 0 && name.chars().anyMatch(Character::isLetter));
    }
}
