package dev.oddbeacon.core.places;

import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

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
 *
 * <p>Each form is found by a sign that it cannot do without, a bracket, a colon, the word line, from which the path is
 * read backwards and the numbers forwards; no character is read more than a few times, whatever the text.
 */
public final class PlaceParser {
    private static final int LONGEST_PATH = 1_000;
    private static final int LONGEST_FILE_NAME = 200;
    private static final int LONGEST_LINE = 20_000;
    private static final int LINE_DIGITS = 8;
    private static final int COLUMN_DIGITS = 7;

    /** A place that stands from a character of a line to before another. */
    private record Found(int start, int end, String path, int line, int column) {}

    /** @param end one past the last digit */
    private record Numbers(int line, int column, int end) {}

    /** One way to name a place. */
    private interface Form {
        /**
         * @param at where the sign may stand
         * @param from what stands before it belongs to the place before
         */
        Optional<Found> at(String line, int at, int from);
    }

    private static final List<Form> FORMS = List.of(
            PlaceParser::ofClass,
            PlaceParser::quoted,
            (line, at, from) -> line.startsWith(":[", at) ? bracketed(line, at, at + 2, ']', from) : Optional.empty(),
            (line, at, from) -> line.charAt(at) == '(' ? bracketed(line, at, at + 1, ')', from) : Optional.empty(),
            (line, at, from) -> line.charAt(at) == ':' ? bare(line, at, at + 1, from) : Optional.empty(),
            PlaceParser::behindTheWordLine);

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
        BitSet claimed = new BitSet(line.length());
        for (Form form : FORMS) {
            int from = 0;
            for (int at = 0; at < line.length(); at++) {
                Optional<Found> sought = form.at(line, at, from);
                if (sought.isEmpty()) {
                    continue;
                }
                Found found = sought.get();
                from = found.end;
                at = found.end - 1;
                int taken = claimed.nextSetBit(found.start);
                if (isPath(found.path) && (taken < 0 || taken >= found.end)) {
                    claimed.set(found.start, found.end);
                    places.add(new Place(number, found.start, found.end, line, found.path, found.line, found.column));
                }
            }
        }
        places.sort(Comparator.comparingInt(Place::start));
        return places;
    }

    /** A path that ends before a sign, and numbers behind it. */
    private static Optional<Found> bare(String line, int pathEnd, int numbersStart, int from) {
        return numbers(line, numbersStart, true).flatMap(numbers -> found(line, pathEnd, numbers, numbers.end, from));
    }

    private static Optional<Found> bracketed(String line, int pathEnd, int numbersStart, char close, int from) {
        return numbers(line, numbersStart, true)
                .filter(numbers -> numbers.end < line.length() && line.charAt(numbers.end) == close)
                .flatMap(numbers -> found(line, pathEnd, numbers, numbers.end + 1, from));
    }

    private static Optional<Found> found(String line, int pathEnd, Numbers numbers, int end, int from) {
        int start = pathStart(line, pathEnd, from);
        boolean isDrive = pathEnd - start == 1 && isLetter(line.charAt(start));
        if (start == pathEnd || isDrive) {
            return Optional.empty();
        }
        String path = line.substring(start, pathEnd);
        String local = path.startsWith("///") ? path.substring(2) : path; // what is left of file:///
        return Optional.of(new Found(start, end, local, numbers.line, numbers.column));
    }

    /** Where a path that stands bare begins. */
    private static int pathStart(String line, int end, int from) {
        int start = end;
        while (start > from && end - start < LONGEST_PATH && isOfPath(line.charAt(start - 1))) {
            start--;
        }
        boolean hasDrive = start < end
                && start - 2 >= from
                && line.charAt(start - 1) == ':'
                && isLetter(line.charAt(start - 2))
                && (start == 2 || !isLetter(line.charAt(start - 3)));
        return hasDrive ? start - 2 : start;
    }

    private static boolean isOfPath(char c) {
        return c > ' ' && "\"'`<>|:*?()[]{},;=".indexOf(c) < 0;
    }

    private static boolean isLetter(char c) {
        return c >= 'A' && c <= 'Z' || c >= 'a' && c <= 'z';
    }

    /** A line and perhaps, behind {@code :}, a comma or a point, a column. */
    private static Optional<Numbers> numbers(String line, int start, boolean takesColumn) {
        int end = digitsEnd(line, start, LINE_DIGITS);
        if (end < 0) {
            return Optional.empty();
        }
        int number = Integer.parseInt(line.substring(start, end));
        if (takesColumn && end < line.length() && ":,.".indexOf(line.charAt(end)) >= 0) {
            int second = end + (line.startsWith(" ", end + 1) ? 2 : 1);
            int secondEnd = digitsEnd(line, second, COLUMN_DIGITS);
            if (secondEnd > 0) {
                return Optional.of(new Numbers(number, Integer.parseInt(line.substring(second, secondEnd)), secondEnd));
            }
        }
        return Optional.of(new Numbers(number, 0, end));
    }

    /** One past the last digit of a number; -1 if there is none or it has too many. */
    private static int digitsEnd(String line, int start, int most) {
        int end = start;
        while (end < line.length() && end - start <= most && line.charAt(end) >= '0' && line.charAt(end) <= '9') {
            end++;
        }
        return end == start || end - start > most ? -1 : end;
    }

    private static Optional<Found> quoted(String line, int at, int from) {
        if (!isQuote(line.charAt(at)) || at < from) {
            return Optional.empty();
        }
        int close = at + 1;
        while (close < line.length()
                && close - at <= LONGEST_PATH + 1
                && line.charAt(close) >= ' '
                && !isQuote(line.charAt(close))) {
            close++;
        }
        if (close == at + 1 || close >= line.length() || !isQuote(line.charAt(close))) {
            return Optional.empty();
        }
        int word = close + 1;
        word += line.startsWith(",", word) ? 1 : 0;
        if (!line.startsWith(" ", word)) {
            return Optional.empty();
        }
        word += line.startsWith("on ", word + 1) ? 4 : 1;
        if (!line.startsWith("line ", word)) {
            return Optional.empty();
        }
        String path = line.substring(at + 1, close);
        return numbers(line, word + 5, false).map(numbers -> {
            int column = columnInWords(line, numbers.end);
            int end = column < 0 ? -1 : digitsEnd(line, column, COLUMN_DIGITS);
            return end < 0
                    ? new Found(at, numbers.end, path, numbers.line, 0)
                    : new Found(at, end, path, numbers.line, Integer.parseInt(line.substring(column, end)));
        });
    }

    private static boolean isQuote(char c) {
        return c == '"' || c == '\'';
    }

    /** Where the number of {@code , col 7} or {@code column 7} begins; -1 if there is none. */
    private static int columnInWords(String line, int at) {
        int word = at + (line.startsWith(",", at) ? 1 : 0);
        return line.startsWith(" col ", word) ? word + 5 : line.startsWith(" column ", word) ? word + 8 : -1;
    }

    private static Optional<Found> behindTheWordLine(String line, int at, int from) {
        if (!line.startsWith("line ", at)) {
            return Optional.empty();
        }
        for (String link : List.of(", ", " on ", ": ", ":", " ")) {
            int pathEnd = at - link.length();
            if (pathEnd > from && line.startsWith(link, pathEnd)) {
                Optional<Found> found = bare(line, pathEnd, at + 5, from);
                if (found.isPresent()) {
                    return found;
                }
            }
        }
        return Optional.empty();
    }

    /** The package of a class says the folders: {@code a.b.C.run(C.java:1)} is in {@code a/b/C.java}. */
    private static Optional<Found> ofClass(String line, int at, int from) {
        if (line.charAt(at) != '(') {
            return Optional.empty();
        }
        int colon = at + 1;
        while (colon < line.length()
                && colon - at <= LONGEST_FILE_NAME
                && line.charAt(colon) > ' '
                && ":()".indexOf(line.charAt(colon)) < 0) {
            colon++;
        }
        if (colon == at + 1 || colon >= line.length() || line.charAt(colon) != ':') {
            return Optional.empty();
        }
        int start = qualifiedStart(line, at, from);
        String file = line.substring(at + 1, colon);
        return numbers(line, colon + 1, false)
                .filter(numbers -> start < at && line.startsWith(")", numbers.end))
                .map(numbers ->
                        new Found(start, numbers.end + 1, folders(line.substring(start, at)) + file, numbers.line, 0));
    }

    /** Where a qualified name begins that ends before a bracket; at the bracket if there is none. */
    private static int qualifiedStart(String line, int end, int from) {
        int start = end;
        int segmentEnd = end;
        for (boolean isFirst = false; !isFirst; ) {
            int segment = segmentEnd;
            int plain = segmentEnd; // from where on the segment can be the first: no <, no digit in front
            boolean isPlain = true;
            while (segment > from && isOfName(line.charAt(segment - 1))) {
                segment--;
                isPlain &= line.charAt(segment) != '<' && line.charAt(segment) != '>';
                if (isPlain && !Character.isDigit(line.charAt(segment))) {
                    plain = segment;
                }
            }
            if (segmentEnd < end && plain < segmentEnd) {
                start = plain;
            }
            isFirst = segment == segmentEnd
                    || Character.isDigit(line.charAt(segment))
                    || line.charAt(segment) == '>'
                    || segment - 1 <= from
                    || line.charAt(segment - 1) != '.';
            segmentEnd = segment - 1;
        }
        return start;
    }

    private static boolean isOfName(char c) {
        return Character.isLetterOrDigit(c) || Character.isSurrogate(c) || "_$<>".indexOf(c) >= 0;
    }

    private static String folders(String qualified) {
        List<String> parts = Split.parts(qualified, '.');
        StringBuilder path = new StringBuilder();
        int folders = 0;
        for (String part : parts) {
            if (!Character.isLowerCase(part.codePointAt(0)) || path.length() + part.length() > LONGEST_PATH) {
                break;
            }
            path.append(part).append('/');
            folders++;
        }
        return folders < parts.size() ? path.toString() : "";
    }

    static boolean isPath(String path) {
        String name = path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
        boolean hasEnding = name.lastIndexOf('.') > 0
                && name.length() - name.lastIndexOf('.') <= 12
                && name.chars().skip(name.lastIndexOf('.') + 1).anyMatch(Character::isLetter);
        return !name.isEmpty()
                && !path.contains("//")
                && (hasEnding || path.indexOf('/') >= 0 && name.chars().anyMatch(Character::isLetter));
    }
}
