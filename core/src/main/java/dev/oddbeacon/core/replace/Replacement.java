package dev.oddbeacon.core.replace;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * What stands instead of matches: a text, in which, of a regular expression, {@code $1}, {@code ${name}} and {@code $0} are
 * what its groups matched, and {@code $$} is a dollar.
 */
public final class Replacement {
    private static final int LONGEST = 100_000; // characters, of one match

    private final List<Part> parts;
    private final boolean keepsCase;
    private final List<Pattern> patterns; // with case, without; none for plain text

    /** A part of the template. */
    private sealed interface Part {
        record Text(String text) implements Part {}

        record Group(int number) implements Part {}
    }

    private Replacement(List<Part> parts, boolean keepsCase, List<Pattern> patterns) {
        this.parts = parts;
        this.keepsCase = keepsCase;
        this.patterns = patterns;
    }

    /**
     * @param keepsCase whether it is written in capitals, or begins with one, where the match does
     * @param query read as plain text or as a regular expression
     * @throws InvalidQueryException if it names a group that there is not
     */
    public static Replacement of(TextQuery query, String template, boolean keepsCase) {
        if (query.reading() == Reading.EXPRESSION) {
            throw new IllegalArgumentException("an expression");
        }
        if (template.length() > LONGEST) {
            throw new InvalidQueryException("What stands instead has more than " + LONGEST + " characters.");
        }
        if (query.reading() != Reading.REGEX) {
            return new Replacement(List.of(new Part.Text(template)), keepsCase, List.of());
        }
        try {
            List<Pattern> patterns = List.of(
                    Pattern.compile(query.text(), Pattern.MULTILINE),
                    Pattern.compile(query.text(), Pattern.MULTILINE | Pattern.CASE_INSENSITIVE));
            return new Replacement(parts(template, patterns.getFirst()), keepsCase, patterns);
        } catch (PatternSyntaxException e) {
            throw new InvalidQueryException("The regular expression cannot be read: " + e.getMessage() + ".");
        }
    }

    private static List<Part> parts(String template, Pattern pattern) {
        List<Part> parts = new ArrayList<>();
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < template.length(); i++) {
            char c = template.charAt(i);
            if (c != '$' || i + 1 == template.length()) {
                text.append(c);
                continue;
            }
            char next = template.charAt(i + 1);
            if (next == '$') {
                text.append('$');
                i++;
            } else if (next == '{') {
                int end = template.indexOf('}', i);
                if (end < 0) {
                    throw new InvalidQueryException("\"${\" has no end. Write ${name}, or $$ for a dollar.");
                }
                add(parts, text, group(template.substring(i + 2, end), pattern));
                i = end;
            } else if (next >= '0' && next <= '9') {
                int end = i + 1;
                while (end < template.length() && end < i + 3 && Character.isDigit(template.charAt(end))) {
                    end++;
                }
                add(parts, text, group(template.substring(i + 1, end), pattern));
                i = end - 1;
            } else {
                text.append(c);
            }
        }
        parts.add(new Part.Text(text.toString()));
        return parts;
    }

    private static void add(List<Part> parts, StringBuilder text, int group) {
        parts.add(new Part.Text(text.toString()));
        text.setLength(0);
        parts.add(new Part.Group(group));
    }

    private static int group(String name, Pattern pattern) {
        Integer number = pattern.namedGroups().get(name);
        if (number == null && !name.isEmpty() && name.chars().allMatch(Character::isDigit) && name.length() <= 2) {
            number = Integer.valueOf(name);
        }
        if (number == null || number > pattern.groupCount()) {
            throw new InvalidQueryException("The regular expression has no group " + name + ". It has "
                    + pattern.groupCount() + "; $$ is a dollar.");
        }
        return number;
    }

    /**
     * What stands instead of one match.
     *
     * @param text that it is in
     * @param start of the match, in UTF-16 units
     * @return empty if its groups cannot be told
     */
    public Optional<String> of(String text, int start, int end) {
        Optional<Matcher> groups = Optional.empty();
        if (parts.stream().anyMatch(Part.Group.class::isInstance)) {
            groups = groups(text, start, end);
            if (groups.isEmpty()) {
                return Optional.empty();
            }
        }
        StringBuilder with = new StringBuilder();
        for (Part part : parts) {
            switch (part) {
                case Part.Text(String literal) -> with.append(literal);
                case Part.Group(int number) -> {
                    String matched = number == 0
                            ? text.substring(start, end)
                            : groups.orElseThrow().group(number);
                    with.append(matched == null ? "" : matched);
                }
            }
        }
        return Optional.of(keepsCase ? inCaseOf(text.substring(start, end), with.toString()) : with.toString());
    }

    private Optional<Matcher> groups(String text, int start, int end) {
        int lineStart = text.lastIndexOf('\n', start - 1) + 1;
        int lineEnd = text.indexOf('\n', end);
        String line = text.substring(lineStart, lineEnd < 0 ? text.length() : lineEnd);
        for (Pattern pattern : patterns) {
            Matcher matcher = pattern.matcher(line);
            if (matcher.find(start - lineStart)
                    && matcher.start() == start - lineStart
                    && matcher.end() == end - lineStart) {
                return Optional.of(matcher);
            }
        }
        return Optional.empty();
    }

    private static String inCaseOf(String match, String with) {
        boolean hasLetters = match.chars().anyMatch(Character::isLetter);
        boolean isUpper = hasLetters && match.equals(match.toUpperCase(Locale.ROOT));
        int first = with.isEmpty() ? 0 : with.codePointAt(0);
        if (isUpper && match.codePoints().filter(Character::isLetter).count() > 1) {
            return with.toUpperCase(Locale.ROOT);
        }
        if (hasLetters && Character.isUpperCase(match.codePointAt(0)) && !with.isEmpty()) {
            return Character.toString(Character.toUpperCase(first)) + with.substring(Character.charCount(first));
        }
        if (hasLetters && match.equals(match.toLowerCase(Locale.ROOT)) && !with.isEmpty()) {
            return Character.toString(Character.toLowerCase(first)) + with.substring(Character.charCount(first));
        }
        return with;
    }
}
