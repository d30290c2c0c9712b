package dev.oddbeacon.core.query.expression;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.query.Patterns;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextClause;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * What was typed, and how it is to be read.
 *
 * @param word whether a match must not be part of a longer word
 */
public record TextQuery(String text, Reading reading, CaseMode caseMode, boolean word) {
    /** Longer texts are refused: nobody types them, and a mistaken paste should not cost a scan. */
    public static final int LONGEST = 10_000;

    public TextQuery {
        Objects.requireNonNull(reading);
        Objects.requireNonNull(caseMode);
        if (text.isEmpty()) {
            throw new InvalidQueryException("The search text is empty. Give at least one character to look for.");
        }
        check(text);
    }

    /** @throws InvalidQueryException for a text that no search can take */
    public static void check(String text) {
        if (text.length() > LONGEST) {
            throw new InvalidQueryException(
                    "The search text has " + text.length() + " characters; at most " + LONGEST
                            + " are taken. Search for a distinctive part of it.",
                    LONGEST);
        }
        for (int i = 0; i < text.length(); i++) {
            boolean paired = Character.isHighSurrogate(text.charAt(i))
                    && i + 1 < text.length()
                    && Character.isLowSurrogate(text.charAt(i + 1));
            if (paired) {
                i++;
            } else if (Character.isSurrogate(text.charAt(i))) {
                throw new InvalidQueryException(
                        "The search text has half a character (a lone surrogate) at position " + (i + 1)
                                + ". Type or paste it again.",
                        i);
            }
        }
    }

    /**
     * What was understood.
     *
     * @param unfinished what is still missing; only if unfinished texts are taken
     */
    public record Understood(Query query, Optional<Mistake> unfinished) {}

    /**
     * Reads the text.
     *
     * @param takesUnfinished whether an expression of which only the end is missing is taken as far as it goes
     * @throws InvalidQueryException with all mistakes and their places
     */
    public Understood understand(boolean takesUnfinished) {
        return switch (reading) {
            case PLAIN -> new Understood(marked(TextClause.Text.pasted(text)), Optional.empty());
            case REGEX -> {
                Optional<Mistake> mistake = Patterns.mistake(text);
                if (mistake.isPresent()) {
                    throw new InvalidQueryException(List.of(mistake.get()));
                }
                yield new Understood(marked(new TextClause.Pattern(text)), Optional.empty());
            }
            case EXPRESSION -> {
                ExpressionParser.Parsed parsed = ExpressionParser.parse(text);
                List<Mistake> mistakes = new ArrayList<>(parsed.mistakes());
                boolean asksNothing = parsed.query() instanceof Query.Everything;
                if (mistakes.isEmpty() && asksNothing) {
                    mistakes.add(new Mistake(
                            "The expression asks for nothing. Write a word, for example.",
                            0,
                            0,
                            Optional.empty(),
                            true));
                }
                boolean isUsable =
                        takesUnfinished && !asksNothing && mistakes.stream().allMatch(Mistake::unfinished);
                if (!mistakes.isEmpty() && !isUsable) {
                    throw new InvalidQueryException(mistakes);
                }
                yield new Understood(marked(parsed.query()), mistakes.stream().findFirst());
            }
        };
    }

    private Query marked(Query query) {
        Query result = word ? new Query.Marked(Query.Mark.WORD, query) : query;
        return switch (caseMode) {
            case AUTO -> result;
            case MATCH -> new Query.Marked(Query.Mark.EXACTLY, result);
            case IGNORE -> new Query.Marked(Query.Mark.ANYCASE, result);
        };
    }
}
