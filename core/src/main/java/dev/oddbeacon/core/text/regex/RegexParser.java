package dev.oddbeacon.core.text.regex;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * Parses RE2 syntax into a {@link Regex}, and tells people the position of a mistake. It takes what RE2/J takes, which
 * is the reference, but is not asked: ignoring case, it does not come to an end over some ranges of characters.
 */
public final class RegexParser {
    private static final int DEEPEST = 200;
    /** Repetitions are written out; this bounds how much. */
    private static final long LARGEST = 20_000;

    private static final Pattern COUNT = Pattern.compile("(0|[1-9][0-9]*)(,(0|[1-9][0-9]*)?)?");
    private static final Pattern NAME = Pattern.compile("[A-Za-z0-9_]+");
    /** Classes that mean one case: with the case ignored they would hold every letter. */
    private static final List<String> TELL_CASES_APART = List.of(":upper:", ":lower:", "Lu", "Ll", "Lt");

    private static final CharSet DIGITS = CharSet.range('0', '9');
    private static final CharSet SPACES =
            CharSet.range('\t', '\n').or(CharSet.range('\f', '\r')).or(CharSet.of(' '));
    private static final CharSet WORD =
            DIGITS.or(CharSet.range('A', 'Z')).or(CharSet.range('a', 'z')).or(CharSet.of('_'));

    private final String pattern;
    private final Set<String> groupNames = new HashSet<>();
    private int at;
    private boolean capital;
    private boolean ignoreCase;
    private boolean lazyFirst; // what (?U) sets: x* is lazy and x*? is greedy

    private RegexParser(String pattern, boolean ignoreCase) {
        this.pattern = pattern;
        this.ignoreCase = ignoreCase;
    }

    /**
     * @param hasCapital whether an upper case letter is among the literal characters, classes included, or a class that
     * tells cases apart
     */
    public record Parsed(Regex regex, boolean hasCapital) {}

    /**
     * @param ignoreCase whether case is ignored where the pattern says nothing of it
     * @throws RegexSyntaxException if the pattern is not valid
     */
    public static Parsed parse(String pattern, boolean ignoreCase) {
        RegexParser parser = new RegexParser(pattern, ignoreCase);
        Regex regex = parser.alternatives(0);
        if (parser.at < pattern.length()) {
            throw mistake(
                    "The ) at position " + (parser.at + 1) + " closes nothing. Write \\) for a bracket that is text.",
                    parser.at);
        }
        if (size(regex) > LARGEST) {
            throw mistake(
                    "The repetitions multiply to " + size(regex) + " steps; at most " + LARGEST
                            + " are taken. Use smaller counts, or * or +.",
                    Math.max(0, pattern.indexOf('{')));
        }
        return new Parsed(regex, parser.capital);
    }

    private static RegexSyntaxException mistake(String message, int position) {
        return new RegexSyntaxException(message, position, false);
    }

    private static RegexSyntaxException unfinished(String message, int position) {
        return new RegexSyntaxException(message, position, true);
    }

    private static long size(Regex regex) {
        return switch (regex) {
            case Regex.Concat concat ->
                1 + concat.parts().stream().mapToLong(RegexParser::size).sum();
            case Regex.Alternate alternate ->
                1 + alternate.parts().stream().mapToLong(RegexParser::size).sum();
            case Regex.Repeat repeat ->
                Math.min(LARGEST * 1_000, 1 + size(repeat.part()) * Math.max(1, Math.max(repeat.min(), repeat.max())));
            default -> 1;
        };
    }

    private Regex alternatives(int depth) {
        if (depth > DEEPEST) {
            throw mistake("Groups are nested more than " + DEEPEST + " deep at position " + (at + 1) + ".", at);
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
            boolean repeats = c == '*' || c == '+' || c == '?' || c == '{' && isCount();
            if (repeats && !parts.isEmpty()) { // behind (?i), which is no part of its own
                parts.add(repeated(parts.removeLast()));
            } else if (repeats) {
                throw mistake(
                        "There is nothing before the " + c + " at position " + (at + 1)
                                + " that it could repeat. Write \\" + c + " for the character itself.",
                        at);
            }
            if (repeats) {
                continue;
            }
            if (pattern.startsWith("\\Q", at)) {
                quoted(parts);
            } else if (!takesFlags()) {
                parts.add(repeated(one(depth)));
            }
        }
        return parts.size() == 1 ? parts.getFirst() : parts.isEmpty() ? Regex.NOTHING : new Regex.Concat(parts);
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
                return new Regex.Chars(CharSet.ANY);
            }
            case '^', '$' -> {
                return new Regex.Edge(c == '^' ? Regex.EdgeKind.LINE_START : Regex.EdgeKind.LINE_END);
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
        return new Regex.Chars(cased(CharSet.of(codePoint)));
    }

    private CharSet cased(CharSet set) {
        return ignoreCase ? set.inAnyCase() : set;
    }

    /**
     * Takes {@code (?i)} and the like, which hold until the group ends that they stand in.
     *
     * @return whether they stand here
     */
    private boolean takesFlags() {
        int start = at;
        boolean ignoreCaseBefore = ignoreCase;
        boolean lazyFirstBefore = lazyFirst;
        if (pattern.startsWith("(?", at)) {
            at += 2;
            takeFlags();
            if (at < pattern.length() && pattern.charAt(at) == ')') {
                at++;
                return true;
            }
        }
        at = start;
        ignoreCase = ignoreCaseBefore;
        lazyFirst = lazyFirstBefore;
        return false;
    }

    /** Takes letters of flags; a minus must have some behind it. */
    private void takeFlags() {
        boolean on = true;
        int start = at;
        for (; at < pattern.length() && "imsU-".indexOf(pattern.charAt(at)) >= 0; at++) {
            switch (pattern.charAt(at)) {
                case '-' -> on = false;
                case 'i' -> ignoreCase = on;
                case 'U' -> lazyFirst = on;
                default -> {} // m and s mean nothing within a line
            }
        }
        boolean isMinusOnly = at > start && pattern.charAt(at - 1) == '-'
                || pattern.substring(start, at).chars().filter(c -> c == '-').count() > 1;
        if (isMinusOnly) {
            throw mistake("The - at position " + at + " needs a flag after it, as in (?-i).", at - 1);
        }
    }

    private Regex group(int start, int depth) {
        boolean ignoreCaseOutside = ignoreCase;
        boolean lazyFirstOutside = lazyFirst;
        if (pattern.startsWith("?", at)) {
            at++;
            int open = at;
            if (pattern.startsWith("P<", at)
                    || pattern.startsWith("<", at) && !pattern.startsWith("<=", at) && !pattern.startsWith("<!", at)) {
                groupName(start);
            } else {
                takeFlags();
                if (at >= pattern.length()) {
                    throw unfinished("The ( at position " + (start + 1) + " is not closed. Add a ).", start);
                }
                if (pattern.charAt(at) != ':') {
                    String construct = pattern.substring(start, Math.min(pattern.length(), open + 1));
                    throw mistake(
                            "(? at position " + (start + 1) + " begins nothing that is known: " + construct
                                    + ". Looking ahead and behind is not part of this dialect; (?:x) groups, (?i) ignores case.",
                            start);
                }
                at++;
            }
        }
        Regex inside = alternatives(depth + 1);
        if (at >= pattern.length()) {
            throw unfinished(
                    "The ( at position " + (start + 1)
                            + " is not closed. Add a ), or write \\( for a bracket that is text.",
                    start);
        }
        at++;
        ignoreCase = ignoreCaseOutside;
        lazyFirst = lazyFirstOutside;
        return inside;
    }

    private void groupName(int start) {
        int open = pattern.indexOf('<', at);
        int close = pattern.indexOf('>', at);
        if (close < 0) {
            throw unfinished(
                    "The name of the group at position " + (start + 1)
                            + " is not closed. Write (?P<name>x), or (?:x) for a group without a name.",
                    start);
        }
        String name = pattern.substring(open + 1, close);
        if (!NAME.matches(name)) {
            throw mistake(
                    "The name of the group at position " + (start + 1)
                            + " may have letters, digits and _ only. Write (?:x) for a group without a name.",
                    start);
        }
        if (!groupNames.add(name)) {
            throw mistake(
                    "Two groups are named " + name + ", the second at position " + (start + 1)
                            + ". Name it otherwise, or write (?:x).",
                    start);
        }
        at = close + 1;
    }

    private Regex escape(int start) {
        if (at >= pattern.length()) {
            throw unfinished(
                    "The \\ at the end, position " + (start + 1)
                            + ", needs a character after it. Write \\\\ for a backslash.",
                    start);
        }
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        switch (c) {
            case 'A' -> {
                return new Regex.Edge(Regex.EdgeKind.LINE_START);
            }
            case 'z' -> {
                return new Regex.Edge(Regex.EdgeKind.LINE_END);
            }
            case 'b' -> {
                return new Regex.Edge(Regex.EdgeKind.WORD_EDGE);
            }
            case 'B' -> {
                return new Regex.Edge(Regex.EdgeKind.NO_WORD_EDGE);
            }
            case 'd', 'D', 's', 'S', 'w', 'W', 'p', 'P' -> {
                return new Regex.Chars(escapedClass(start, c));
            }
            default -> {}
        }
        boolean octal = c <= '7' && at < pattern.length() && pattern.charAt(at) >= '0' && pattern.charAt(at) <= '7';
        if (c >= '1' && c <= '9' && !octal) {
            throw mistake(
                    "\\" + (char) c + " at position " + (start + 1)
                            + " would refer back to a group; that is not part of this dialect, which answers in linear time.",
                    start);
        }
        return literal(escaped(start, c));
    }

    /** The members of an escape that stands for a class; the position is after its letter. */
    private CharSet escapedClass(int start, int letter) {
        CharSet set = switch (letter) {
            case 'd', 'D' -> DIGITS;
            case 's', 'S' -> SPACES;
            case 'w', 'W' -> WORD;
            default -> {
                int close = pattern.startsWith("{", at) ? pattern.indexOf('}', at) + 1 : at + 1;
                at = close <= 0 || close > pattern.length() ? pattern.length() : close;
                yield namedClass(
                        start,
                        "\\p" + pattern.substring(Math.min(at, start + 2), at).replace("{^", "{"));
            }
        };
        boolean negated = Character.isUpperCase(letter) != pattern.startsWith("{^", start + 2);
        return negated ? cased(set).negated() : cased(set);
    }

    private CharSet namedClass(int start, String source) {
        try {
            capital |= TELL_CASES_APART.stream().anyMatch(source::contains);
            return UnicodeClasses.of(source);
        } catch (PatternSyntaxException e) {
            throw new RegexSyntaxException(
                    "There is no class " + pattern.substring(start, at) + " (position " + (start + 1)
                            + "). \\pL stands for letters, \\p{Greek} for a script, [[:alpha:]] for ASCII letters.",
                    start,
                    at >= pattern.length());
        }
    }

    /** The character that an escape stands for; the position is after its letter. */
    private int escaped(int start, int letter) {
        return switch (letter) {
            case 'a' -> 7;
            case 'f' -> '\f';
            case 't' -> '\t';
            case 'n' -> '\n';
            case 'r' -> '\r';
            case 'v' -> 0x0B;
            case 'x' -> hexadecimal();
            case '0' -> octal(0);
            default -> {
                if (letter >= '1'
                        && letter <= '7'
                        && at < pattern.length()
                        && pattern.charAt(at) >= '0'
                        && pattern.charAt(at) <= '7') {
                    yield octal(letter - '0');
                }
                if (letter < 0x80 && Character.isLetterOrDigit(letter)) {
                    String text = Character.toString(letter);
                    throw mistake(
                            "\\" + text + " at position " + (start + 1) + " means nothing here. Write " + text
                                    + " for the character itself.",
                            start);
                }
                yield letter;
            }
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
            int value = Integer.parseUnsignedInt(pattern, from, Math.max(from, end), 16);
            if (!Character.isValidCodePoint(value) || pattern.charAt(from) == '+' || from == at && end - from < 2) {
                throw new NumberFormatException();
            }
            at = from == at ? end : end + 1;
            return value;
        } catch (NumberFormatException e) {
            throw mistake("\\x at position " + (at - 1) + " needs hexadecimal digits: \\x41 or \\x{1F6A2}.", at - 2);
        }
    }

    private int octal(int first) {
        int value = first;
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
        CharSet members = CharSet.NONE;
        for (boolean first = true; ; first = false) {
            if (at >= pattern.length()) {
                throw unfinished(
                        "The [ at position " + (start + 1)
                                + " is not closed. Add a ], or write \\[ for a bracket that is text.",
                        start);
            }
            if (pattern.charAt(at) == ']' && !first) {
                at++;
                return new Regex.Chars(negated ? members.negated() : members);
            }
            int begin = at;
            if (pattern.startsWith("[:", at) && pattern.indexOf(":]", at) > 0) {
                at = pattern.indexOf(":]", at) + 2;
                CharSet named = cased(
                        namedClass(begin, "[" + pattern.substring(begin, at).replace("[:^", "[:") + "]"));
                members = members.or(pattern.startsWith("[:^", begin) ? named.negated() : named);
                continue;
            }
            int low = classMember();
            if (low < 0) {
                at = begin + 2;
                members = members.or(escapedClass(begin, -low));
                continue;
            }
            int high = low;
            if (at + 1 < pattern.length() && pattern.charAt(at) == '-' && pattern.charAt(at + 1) != ']') {
                at++;
                high = classMember();
            }
            if (high < low) {
                throw mistake(
                        "The range " + pattern.substring(begin, at) + " at position " + (begin + 1)
                                + " ends before it begins. Write the lower end first.",
                        begin);
            }
            capital |= Character.isUpperCase(low) || Character.isUpperCase(high);
            members = members.or(cased(CharSet.range(low, high)));
        }
    }

    /** One member of a class, or the negated letter of an escape that stands for many. */
    private int classMember() {
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        if (c != '\\' || at >= pattern.length()) {
            return c;
        }
        int letter = pattern.codePointAt(at);
        at += Character.charCount(letter);
        return "dDsSwWpP".indexOf(letter) >= 0 ? -letter : escaped(at - 1 - Character.charCount(letter), letter);
    }

    private Regex repeated(Regex part) {
        Regex result = part;
        for (boolean isStacked = false; at < pattern.length(); isStacked = true) {
            int start = at;
            char c = pattern.charAt(at);
            int min;
            int max;
            if (c == '*' || c == '+' || c == '?') {
                at++;
                min = c == '+' ? 1 : 0;
                max = c == '?' ? 1 : -1;
            } else if (c == '{' && isCount()) {
                int close = pattern.indexOf('}', at);
                List<String> bounds = Split.parts(pattern.substring(at + 1, close), ',');
                at = close + 1;
                min = count(bounds.getFirst(), start);
                max = bounds.size() == 1 ? min : bounds.get(1).isEmpty() ? -1 : count(bounds.get(1), start);
                if (max >= 0 && max < min) {
                    throw mistake(
                            "The repetition at position " + (start + 1)
                                    + " has a smaller number last. Write {least,most}.",
                            start);
                }
            } else {
                return result;
            }
            if (isStacked) {
                throw mistake(
                        "Two repetitions follow each other at position " + (start + 1)
                                + ". Take one away, or put the first in (?: ).",
                        start);
            }
            boolean greedy = !lazyFirst;
            if (at < pattern.length() && pattern.charAt(at) == '?') {
                at++;
                greedy = !greedy;
            }
            result = new Regex.Repeat(result, min, max, greedy);
        }
        return result;
    }

    private boolean isCount() {
        int close = pattern.indexOf('}', at);
        return close > 0 && COUNT.matches(pattern.substring(at + 1, close));
    }

    private static int count(String digits, int start) {
        if (digits.length() > 4 || Integer.parseInt(digits) > 1_000) {
            throw mistake(
                    "The repetition at position " + (start + 1) + " goes over 1000. Use a smaller count, or * or +.",
                    start);
        }
        return Integer.parseInt(digits);
    }
}
