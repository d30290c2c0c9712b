package dev.oddbeacon.core.query.expression;

import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.query.Patterns;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Reads an expression piece by piece, from left to right: words, phrases and regular expressions. What is wrong is noted
 * with its place, and reading goes on.
 */
abstract class ExpressionScanner {
    static final int DEEPEST = 100;
    static final int MOST_CLAUSES = 250;
    final String text;
    final List<Mistake> mistakes = new ArrayList<>();
    int at;
    int depth;
    int clauses;
    int calls; // how many argument lists are open: in them a comma ends a word

    /** Whether nothing follows that could be an operand. */
    boolean isAtEnd() {
        skipSpace();
        return at >= text.length() || text.charAt(at) == ')' || calls > 0 && text.charAt(at) == ',';
    }

    boolean tooDeep() {
        if (depth < DEEPEST) {
            return false;
        }
        mistake(
                "The expression is nested more than " + DEEPEST + " deep here.",
                at,
                1,
                "search for less at once",
                Optional.empty());
        at = text.length();
        clauses = MOST_CLAUSES + 1;
        return true;
    }

    void close(int open, String message) {
        skipSpace();
        if (at < text.length() && text.charAt(at) == ')') {
            at++;
        } else if (clauses <= MOST_CLAUSES) {
            note(
                    message + " A ) is expected"
                            + (at < text.length() ? " before \"" + text.charAt(at) + "\"." : " at the end."),
                    open,
                    1,
                    Optional.of(text.substring(0, at) + ")" + text.substring(at)),
                    at >= text.length());
        }
    }

    String phrase() {
        int start = at++;
        StringBuilder phrase = new StringBuilder();
        while (at < text.length() && text.charAt(at) != '"') {
            char c = text.charAt(at++);
            if (c != '\\') {
                boolean isHalfALineBreak = c == '\r' && at < text.length() && text.charAt(at) == '\n';
                phrase.append(isHalfALineBreak ? "" : String.valueOf(c));
                continue;
            }
            if (at >= text.length()) {
                break;
            }
            char escaped = text.charAt(at++);
            switch (escaped) {
                case '"', '\\' -> phrase.append(escaped);
                case 't' -> phrase.append('\t');
                case 'n' -> phrase.append('\n');
                case 'r' -> phrase.append('\r');
                default -> {
                    mistake(
                            "\\" + escaped + " is no escape in a phrase.",
                            at - 2,
                            2,
                            "write \\\\ for a backslash; \\\" \\t \\n \\r are the others",
                            Optional.of(replaced(at - 2, 2, "\\\\" + escaped)));
                    phrase.append(c).append(escaped);
                }
            }
        }
        if (at >= text.length()) {
            note(
                    "This quotation mark is not closed. A \" is expected at the end.",
                    start,
                    1,
                    Optional.of(text + "\""),
                    true);
        } else {
            at++;
        }
        if (phrase.isEmpty()) {
            mistake(
                    "This phrase is empty.",
                    start,
                    at - start,
                    "write what to find between the quotation marks",
                    Optional.of(without(start, at - start)));
        }
        return phrase.toString();
    }

    Optional<Query> regex() {
        int start = at++;
        StringBuilder regex = new StringBuilder();
        List<Integer> places = new ArrayList<>(); // of each character in text
        boolean literal = false;
        while (at < text.length() && text.charAt(at) != '/') {
            char c = text.charAt(at);
            boolean pair = c == '\\' && at + 1 < text.length();
            if (literal && text.startsWith("\\E", at)) {
                literal = false;
            } else if (pair && !literal) {
                literal = text.charAt(at + 1) == 'Q';
                if (text.charAt(at + 1) == '/') {
                    at++;
                    regex.append('/');
                    places.add(at++);
                    continue;
                }
            }
            int count = pair && (!literal || text.charAt(at + 1) == 'Q') ? 2 : 1;
            for (int i = 0; i < count; i++) {
                regex.append(text.charAt(at));
                places.add(at++);
            }
        }
        boolean closed = at < text.length();
        if (closed) {
            at++;
        } else {
            note(
                    "This regular expression is not closed. A / is expected at the end.",
                    start,
                    1,
                    Optional.of(text + "/"),
                    true);
        }
        if (regex.isEmpty()) {
            mistake(
                    "This regular expression is empty.",
                    start,
                    at - start,
                    "write one between the slashes, or \"/\" for a slash that is text",
                    Optional.of(without(start, at - start)));
            return Optional.empty();
        }
        Optional<Mistake> wrong = Patterns.mistake(regex.toString());
        if (wrong.isPresent()) {
            int place = wrong.get().position() < places.size()
                    ? places.get(wrong.get().position())
                    : start;
            note(wrong.get().message(), place, 1, Optional.empty(), !closed);
            return Optional.empty();
        }
        return Optional.of(new TextClause.Pattern(regex.toString()));
    }

    /** The word at the current place, after any space; empty if none begins here. */
    String word() {
        skipSpace();
        int end = at;
        while (end < text.length()
                && !ExpressionSyntax.endsWord(text.codePointAt(end), calls > 0)
                && !(end == at && text.charAt(end) == '"')) {
            end += Character.charCount(text.codePointAt(end));
        }
        return text.substring(at, end);
    }

    void skipSpace() {
        while (at < text.length() && ExpressionSyntax.isSpace(text.codePointAt(at))) {
            at += Character.charCount(text.codePointAt(at));
        }
    }

    String without(int start, int length) {
        return replaced(start, length, "").strip();
    }

    String replaced(int start, int length, String by) {
        return text.substring(0, start) + by + text.substring(start + length);
    }

    /** Something is missing after an operator: a matter of time if it is the end. */
    void missing(String message, int position, int length) {
        boolean atEnd = at >= text.length();
        note(message, position, length, Optional.of(without(position, length)), atEnd);
    }

    void missingOrWrong(String message, int position, int length) {
        boolean atEnd = position >= text.length();
        note(message, Math.min(position, text.length()), atEnd ? 0 : length, Optional.empty(), atEnd);
    }

    void mistake(String message, int position, int length, String advice, Optional<String> suggestion) {
        note(
                message + " " + Character.toUpperCase(advice.charAt(0)) + advice.substring(1) + ".",
                position,
                length,
                suggestion,
                false);
    }

    void note(String message, int position, int length, Optional<String> suggestion, boolean unfinished) {
        mistakes.add(new Mistake(message, position, length, suggestion.filter(other -> !other.isBlank()), unfinished));
    }

    ExpressionScanner(String text) {
        this.text = text;
    }
}
