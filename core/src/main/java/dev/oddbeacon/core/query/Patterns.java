package dev.oddbeacon.core.query;

import dev.oddbeacon.core.text.Words;
import dev.oddbeacon.core.text.regex.CharSet;
import dev.oddbeacon.core.text.regex.LineRegex;
import dev.oddbeacon.core.text.regex.Regex;
import dev.oddbeacon.core.text.regex.RegexParser;
import dev.oddbeacon.core.text.regex.RegexSyntaxException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Regular expressions as people write them, and wildcards, as syntax trees. */
public final class Patterns {
    private Patterns() {}

    /** Parts of words in the sense of {@link Words}. Made when it is first needed: all code points are asked. */
    private static final class WordParts {
        static final CharSet ALL = CharSet.where(Words::isWordPart);
    }

    /** The mistake in a regular expression, if there is one. */
    public static Optional<Mistake> mistake(String regex) {
        try {
            LineRegex.of(RegexParser.parse(regex, false).regex());
            return Optional.empty();
        } catch (RegexSyntaxException e) {
            return Optional.of(new Mistake(
                    e.getMessage(), Math.min(e.position(), regex.length()), 1, suggestion(regex, e), e.unfinished()));
        }
    }

    /** A correction: closes the last group or class, or takes the last character out. */
    private static Optional<String> suggestion(String regex, RegexSyntaxException e) {
        List<String> attempts = new ArrayList<>(List.of(regex + ")", regex + "]", regex + "\\"));
        if (e.position() < regex.length()) {
            attempts.add(regex.substring(0, e.position()) + "\\" + regex.substring(e.position()));
            attempts.add(regex.substring(0, e.position()) + regex.substring(e.position() + 1));
        }
        return attempts.stream()
                .filter(attempt -> !attempt.isEmpty() && isValid(attempt))
                .findFirst();
    }

    private static boolean isValid(String regex) {
        try {
            RegexParser.parse(regex, false);
            return true;
        } catch (RegexSyntaxException e) {
            return false;
        }
    }

    /** @throws RegexSyntaxException if it is not valid */
    public static Regex regex(String pattern, CaseMode caseMode) {
        boolean ignoreCase = switch (caseMode) {
            case IGNORE -> true;
            case MATCH -> false;
            case AUTO -> !RegexParser.parse(pattern, false).hasCapital();
        };
        return RegexParser.parse(pattern, ignoreCase).regex();
    }

    /** {@code tide*} is tide and all word parts that follow it. */
    public static Regex wildcard(String pattern, CaseMode caseMode) {
        boolean ignoreCase = caseMode.ignores(pattern);
        List<Regex> parts = new ArrayList<>();
        pattern.codePoints().forEach(c -> {
            switch (c) {
                case '*' -> parts.add(new Regex.Repeat(new Regex.Chars(WordParts.ALL), 0, -1, true));
                case '?' -> parts.add(new Regex.Chars(WordParts.ALL));
                default -> parts.add(Regex.character(c, ignoreCase));
            }
        });
        return new Regex.Concat(parts);
    }
}
