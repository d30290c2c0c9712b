package dev.oddbeacon.core.text;

import java.util.ArrayList;
import java.util.List;

/**
 * Where code leaves room for a value in a text: {@code {route}}, {@code {0}}, {@code ${ferry}}, {@code #{ferry}},
 * {@code {{ferry}}}, {@code $ferry}, {@code %s}, {@code %1$d}, {@code %(ferry)s}, {@code \(ferry)}, and between two
 * strings or beside one {@code " + ferry + "}.
 */
public final class Placeholders {
    private static final int LONGEST_EXPRESSION = 80;
    private static final String CONVERSIONS = "aAbBcdDeEfFgGhHinosStTuUxX@";
    private static final List<String> JOINTS = List.of("+", "..", ".", "&", "<<", ",");

    private Placeholders() {}

    /**
     * A piece of a line.
     *
     * @param start where it begins
     * @param isRoom whether it leaves room for a value; otherwise it is one character
     */
    public record Element(int start, int end, boolean isRoom) {}

    /** A line as characters and rooms. */
    public static List<Element> elements(String line) {
        List<Element> elements = new ArrayList<>();
        for (int at = 0; at < line.length(); ) {
            int end = roomEnd(line, at);
            if (end > at) {
                elements.add(new Element(at, end, true));
                at = end;
            } else {
                elements.add(new Element(at, at + 1, false));
                at++;
            }
        }
        return elements;
    }

    /** Whether a line may have one at all; cheap. */
    public static boolean mayBeIn(String line) {
        for (int i = 0; i < line.length(); i++) {
            char c = line.charAt(i);
            if (c == '{' || c == '%' || c == '$' || c == '\\' || c == '"' || c == '\'' || c == '`') {
                return true;
            }
        }
        return false;
    }

    private static int roomEnd(String line, int at) {
        char c = line.charAt(at);
        return switch (c) {
            case '{' -> line.startsWith("{{", at) ? closed(line, at + 2, "}}") : closed(line, at + 1, "}");
            case '#' -> line.startsWith("#{", at) ? closed(line, at + 2, "}") : at;
            case '$' -> line.startsWith("${", at) ? closed(line, at + 2, "}") : name(line, at);
            case '\\' -> line.startsWith("\\(", at) ? closed(line, at + 2, ")") : at;
            case '%' -> conversion(line, at);
            case '"', '\'', '`' -> joint(line, at, c);
            default -> at;
        };
    }

    /** Behind what closes an expression without braces and quotation marks; {@code from - 1} or less if nothing does. */
    private static int closed(String line, int from, String close) {
        int end = line.indexOf(close, from);
        if (end < 0 || end - from > LONGEST_EXPRESSION) {
            return -1;
        }
        for (int i = from; i < end; i++) {
            if ("{};\"".indexOf(line.charAt(i)) >= 0) {
                return -1;
            }
        }
        return end + close.length();
    }

    private static int name(String line, int at) {
        int end = at + 1;
        while (end < line.length() && Words.isWordPart(line.charAt(end))) {
            end++;
        }
        return end == at + 1 ? at : end;
    }

    /** {@code %s}, {@code %-5.2f}, {@code %1$s}, {@code %(name)s}, {@code %{name}}. */
    private static int conversion(String line, int at) {
        int end = at + 1;
        if (line.startsWith("%{", at)) {
            return closed(line, at + 2, "}");
        }
        if (line.startsWith("%(", at)) {
            end = closed(line, at + 2, ")");
            if (end < 0) {
                return -1;
            }
        }
        while (end < line.length() && "-#+0,123456789.$*lhzqjL".indexOf(line.charAt(end)) >= 0) {
            end++;
        }
        return end < line.length() && CONVERSIONS.indexOf(line.charAt(end)) >= 0 ? end + 1 : at;
    }

    /** From the end of a string over what is joined to it, to the beginning of the next one or the end of the line. */
    private static int joint(String line, int at, char mark) {
        int from = skipSpaces(line, at + 1);
        String sign = jointAt(line, from);
        if (sign.isEmpty()) {
            return startsAfterJoint(line, at) ? at + 1 : at;
        }
        int next = line.indexOf(mark, from + sign.length());
        if (next < 0) {
            return line.length();
        }
        return next - from <= LONGEST_EXPRESSION && startsAfterJoint(line, next) ? next + 1 : at;
    }

    /** Whether a quotation mark begins a string that is joined to something before it. */
    private static boolean startsAfterJoint(String line, int mark) {
        int before = mark;
        while (before > 0 && line.charAt(before - 1) == ' ') {
            before--;
        }
        String head = line.substring(0, before);
        return JOINTS.stream().anyMatch(sign -> !sign.equals(",") && head.endsWith(sign));
    }

    private static String jointAt(String line, int at) {
        return JOINTS.stream()
                .filter(sign -> line.startsWith(sign, at))
                .findFirst()
                .orElse("");
    }

    private static int skipSpaces(String line, int from) {
        int at = from;
        while (at < line.length() && line.charAt(at) == ' ') {
            at++;
        }
        return at;
    }
}
