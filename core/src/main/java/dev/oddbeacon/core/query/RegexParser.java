package dev.oddbeacon.core.query;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;

/**
 * Parses RE2 syntax into a {@link Regex}: for the index, which wants the literals, and for people, who want the
 * position of a mistake. RE2/J remains the judge of what is valid: what this parser lets through, RE2/J may still
 * refuse.
 *
 * <p>Character classes of more than {@value #SMALL_CLASS} members become {@link Regex.Wide}; so does every escape
 * that stands for a class.
 */
final class RegexParser {
    private static final int SMALL_CLASS = 6;
    private static final int DEEPEST = 200;
    /** Repetitions are written out by the matcher; this bounds how much. */
    private static final long LARGEST = 100_000;
    private static final String ASSERTIONS = "bBAz";

    private final String pattern;
    private int at;
    private boolean capital;

    private RegexParser(String pattern) {
        this.pattern = pattern;
    }

    /** @param hasCapital whether an upper case letter is among the literal characters, classes included */
    record Parsed(Regex regex, boolean hasCapital) {}

    /** @throws InvalidQueryException with the position of the mistake */
    static Parsed parse(String pattern) {
        RegexParser parser = new RegexParser(pattern);
        Regex regex = parser.alternatives(0);
        if (parser.at < pattern.length()) {
            throw new InvalidQueryException("The ) at position " + (parser.at + 1) + " closes nothing. Write \\) for a bracket that is text.", parser.at);
        }
        if (size(regex) > LARGEST) {
            throw new InvalidQueryException("The repetitions multiply to " + size(regex) + " steps; at most " + LARGEST
                    + " are taken. Use smaller counts, or * or +.", pattern.indexOf('{'));
        }
        return new Parsed(regex, parser.capital);
    }

    private static long size(Regex regex) {
        return switch (regex) {
            case Regex.Concat concat -> 1 + concat.parts().stream().mapToLong(RegexParser::size).sum();
            case Regex.Alternate alternate -> 1 + alternate.parts().stream().mapToLong(RegexParser::size).sum();
            case Regex.Repeat repeat -> Math.min(LARGEST * 1_000, 1 + size(repeat.part()) * Math.max(1, Math.max(repeat.min(), repeat.max())));
            default -> 1;
        };
    }

    private Regex alternatives(int depth) {
        if (depth > DEEPEST) {
            throw new InvalidQueryException("Groups are nested more than " + DEEPEST + " deep at position " + (at + 1) + ".", at);
        }
        List<Regex> alternatives = new ArrayList<>();
        alternatives.add(sequence(depth));
        while (at < pattern.length() && pattern.charAt(at) == '|') {
            at++;
            alternatives.add(sequence(depth));
        }
        return alternatives.size() == 1 ? alternatives.getFirst() : new Regex.Alternate(alternatives);
    }

    private Regex sequence(int depth) {
        List<Regex> parts = new ArrayList<>();
        while (at < pattern.length() && pattern.charAt(at) != '|' && pattern.charAt(at) != ')') {
            char c = pattern.charAt(at);
            if ((c == '*' || c == '+' || c == '?') && parts.isEmpty()) {
                throw new InvalidQueryException("There is nothing before the " + c + " at position " + (at + 1)
                        + " that it could repeat. Write \\" + c + " for the character itself.", at);
            }
            if (pattern.startsWith("\\Q", at)) {
                quoted(parts);
            } else {
                parts.add(repeated(one(depth)));
            }
        }
        return parts.size() == 1 ? parts.getFirst() : parts.isEmpty() ? new Regex.Edge() : new Regex.Concat(parts);
    }

    private void quoted(List<Regex> parts) {
        int end = pattern.indexOf("\\E", at + 2);
        String text = pattern.substring(at + 2, end < 0 ? pattern.length() : end);
        int[] codePoints = text.codePoints().toArray();
        at = end < 0 ? pattern.length() : end + 2;
        for (int i = 0; i < codePoints.length; i++) {
            Regex literal = literal(codePoints[i]);
            parts.add(i == codePoints.length - 1 ? repeated(literal) : literal);
        }
        if (codePoints.length == 0) {
            parts.add(new Regex.Edge());
        }
    }

    private Regex one(int depth) {
        int start = at;
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        switch (c) {
            case '(' -> {
                return group(start, depth);
            }
            case '[' -> {
                return charClass(start);
            }
            case '.' -> {
                return new Regex.Wide();
            }
            case '^', '$' -> {
                return new Regex.Edge();
            }
            case '\\' -> {
                return escape(start);
            }
            default -> {
                return literal(c);
            }
        }
    }

    private Regex literal(int codePoint) {
        capital |= Character.isUpperCase(codePoint);
        return new Regex.Char(codePoint);
    }

    private Regex group(int start, int depth) {
        if (pattern.startsWith("?", at)) {
            at++;
            int open = at;
            if (pattern.startsWith("P<", at) || pattern.startsWith("<", at) && !pattern.startsWith("<=", at) && !pattern.startsWith("<!", at)) {
                int close = pattern.indexOf('>', at);
                at = close < 0 ? pattern.length() : close + 1;
            } else {
                while (at < pattern.length() && "imsU-".indexOf(pattern.charAt(at)) >= 0) {
                    at++;
                }
                if (at < pattern.length() && pattern.charAt(at) == ')') {
                    at++;
                    return new Regex.Edge();
                }
                if (at >= pattern.length() || pattern.charAt(at) != ':') {
                    String construct = pattern.substring(start, Math.min(pattern.length(), open + 1));
                    throw new InvalidQueryException("(? at position " + (start + 1) + " begins nothing that is known: " + construct
                            + ". Looking ahead and behind is not part of this dialect; (?:x) groups, (?i) ignores case.", start);
                }
                at++;
            }
        }
        Regex inside = alternatives(depth + 1);
        if (at >= pattern.length()) {
            throw new InvalidQueryException("The ( at position " + (start + 1) + " is not closed. Add a ), or write \\( for a bracket that is text.", start);
        }
        at++;
        return inside;
    }

    private Regex escape(int start) {
        if (at >= pattern.length()) {
            throw new InvalidQueryException("The \\ at the end, position " + (start + 1) + ", needs a character after it. Write \\\\ for a backslash.", start);
        }
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        if (ASSERTIONS.indexOf(c) >= 0) {
            return new Regex.Edge();
        }
        if (c == 'p' || c == 'P') {
            int close = pattern.startsWith("{", at) ? pattern.indexOf('}', at) + 1 : at + 1;
            at = close <= 0 ? pattern.length() : Math.min(pattern.length(), close);
            return new Regex.Wide();
        }
        if ("dDsSwWC".indexOf(c) >= 0) {
            return new Regex.Wide();
        }
        if (c >= '1' && c <= '9') {
            throw new InvalidQueryException("\\" + (char) c + " at position " + (start + 1)
                    + " would refer back to a group; that is not part of this dialect, which answers in linear time.", start);
        }
        return literal(escaped(c));
    }

    /** The character that an escape stands for; the position is after its letter. */
    private int escaped(int letter) {
        return switch (letter) {
            case 'a' -> 7;
            case 'f' -> '\f';
            case 't' -> '\t';
            case 'n' -> '\n';
            case 'r' -> '\r';
            case 'v' -> 0x0B;
            case 'x' -> hexadecimal();
            case '0' -> octal();
            default -> letter;
        };
    }

    private int hexadecimal() {
        int end = Math.min(pattern.length(), at + 2);
        int from = at;
        if (pattern.startsWith("{", at)) {
            from = at + 1;
            end = pattern.indexOf('}', at);
        }
        try {
            int value = Integer.parseInt(pattern, from, Math.max(from, end), 16);
            at = from == at ? end : end + 1;
            return value;
        } catch (NumberFormatException e) {
            throw new InvalidQueryException("\\x at position " + (at - 1) + " needs hexadecimal digits: \\x41 or \\x{1F6A2}.", at - 2);
        }
    }

    private int octal() {
        int value = 0;
        for (int i = 0; i < 2 && at < pattern.length() && pattern.charAt(at) >= '0' && pattern.charAt(at) <= '7'; i++) {
            value = value * 8 + pattern.charAt(at++) - '0';
        }
        return value;
    }

    private Regex charClass(int start) {
        boolean negated = pattern.startsWith("^", at);
        if (negated) {
            at++;
        }
        Set<Integer> members = new TreeSet<>();
        boolean wide = negated;
        for (boolean first = true; ; first = false) {
            if (at >= pattern.length()) {
                throw new InvalidQueryException("The [ at position " + (start + 1) + " is not closed. Add a ], or write \\[ for a bracket that is text.", start);
            }
            if (pattern.charAt(at) == ']' && !first) {
                at++;
                break;
            }
            if (pattern.startsWith("[:", at) && pattern.indexOf(":]", at) > 0) {
                at = pattern.indexOf(":]", at) + 2;
                wide = true;
                continue;
            }
            int low = classMember();
            if (low < 0) {
                wide = true;
                continue;
            }
            int high = low;
            if (at + 1 < pattern.length() && pattern.charAt(at) == '-' && pattern.charAt(at + 1) != ']') {
                at++;
                high = classMember();
            }
            capital |= Character.isUpperCase(low) || Character.isUpperCase(high);
            wide |= high - low >= SMALL_CLASS;
            for (int c = low; !wide && c <= high; c++) {
                members.add(c);
            }
        }
        return wide || members.size() > SMALL_CLASS ? new Regex.Wide() : new Regex.OneOf(List.copyOf(members));
    }

    /** One member of a class, or -1 for an escape that stands for many. */
    private int classMember() {
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        if (c != '\\' || at >= pattern.length()) {
            return c;
        }
        int letter = pattern.codePointAt(at);
        at += Character.charCount(letter);
        if (letter == 'p' || letter == 'P') {
            int close = pattern.startsWith("{", at) ? pattern.indexOf('}', at) + 1 : at + 1;
            at = close <= 0 ? pattern.length() : Math.min(pattern.length(), close);
            return -1;
        }
        return "dDsSwW".indexOf(letter) >= 0 ? -1 : escaped(letter);
    }

    private Regex repeated(Regex part) {
        Regex result = part;
        while (at < pattern.length()) {
            int start = at;
            char c = pattern.charAt(at);
            if (c == '*' || c == '+' || c == '?') {
                at++;
                result = new Regex.Repeat(result, c == '+' ? 1 : 0, c == '?' ? 1 : -1);
            } else if (c == '{' && isCount()) {
                int close = pattern.indexOf('}', at);
                String[] bounds = pattern.substring(at + 1, close).split(",", -1);
                at = close + 1;
                int min = count(bounds[0], start);
                int max = bounds.length == 1 ? min : bounds[1].isEmpty() ? -1 : count(bounds[1], start);
                if (max >= 0 && max < min) {
                    throw new InvalidQueryException("The repetition at position " + (start + 1) + " has a smaller number last. Write {least,most}.", start);
                }
                result = new Regex.Repeat(result, min, max);
            } else {
                return result;
            }
            if (at < pattern.length() && pattern.charAt(at) == '?') {
                at++; // lazy: the same characters
            }
        }
        return result;
    }

    private boolean isCount() {
        int close = pattern.indexOf('}', at);
        return close > 0 && pattern.substring(at + 1, close).matches("[0-9]+(,[0-9]*)?");
    }

    private static int count(String digits, int start) {
        if (digits.length() > 4 || Integer.parseInt(digits) > 1_000) {
            throw new InvalidQueryException("The repetition at position " + (start + 1) + " goes over 1000. Use a smaller count, or * or +.", start);
        }
        return Integer.parseInt(digits);
    }
}
