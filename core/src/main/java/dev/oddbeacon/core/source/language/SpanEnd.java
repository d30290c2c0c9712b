package dev.oddbeacon.core.source.language;

import java.util.Arrays;

/** Finds the ends of spans that no fixed text ends; each looks at a text once, from left to right. */
final class SpanEnd {
    private static final int LONGEST_REGEX = 4_000;
    private static final int LONGEST_OF_LINES = 40_000;

    private int afterWord;

    /** @return the end of a span that starts at an offset, -1 if none does */
    int of(SpanForm form, byte[] text, int at, int end, int lineStart) {
        return switch (form.shape()) {
            case RAW_HASH -> rawHash(text, at, end);
            case RAW_DELIMITED -> rawDelimited(text, at + 1, end);
            case LONG_BRACKET -> longBracket(text, at + (form.start()[0] == '[' ? 0 : form.start().length - 1), end);
            case RAW_QUOTES -> rawQuotes(text, at, end);
            case CHARACTER -> character(text, at, end);
            case DOLLAR_TAG -> dollarTag(text, at, end);
            case BLOCK -> block(text, at, end, lineStart);
            default -> throw new IllegalArgumentException(form.toString());
        };
    }

    private static int rawHash(byte[] text, int at, int end) {
        int hashes = 0;
        while (at + hashes < end && text[at + hashes] == '#') {
            hashes++;
        }
        if (at + hashes >= end || text[at + hashes] != '"') {
            return -1;
        }
        byte[] close = new byte[hashes + 1];
        Arrays.fill(close, (byte) '#');
        close[0] = '"';
        return behind(text, at + hashes + 1, end, close);
    }

    private static int rawDelimited(byte[] text, int at, int end) {
        int open = at;
        while (open < end && open - at <= 16 && text[open] != '(' && text[open] != '"' && text[open] > ' ') {
            open++;
        }
        if (open >= end || text[open] != '(') {
            return -1;
        }
        byte[] close = new byte[open - at + 2];
        close[0] = ')';
        System.arraycopy(text, at, close, 1, open - at);
        close[close.length - 1] = '"';
        return behind(text, open + 1, end, close);
    }

    private static int longBracket(byte[] text, int at, int end) {
        int equals = 0;
        while (at + 1 + equals < end && text[at + 1 + equals] == '=') {
            equals++;
        }
        if (at + 1 + equals >= end || text[at + 1 + equals] != '[') {
            return -1;
        }
        byte[] close = new byte[equals + 2];
        Arrays.fill(close, (byte) '=');
        close[0] = ']';
        close[close.length - 1] = ']';
        return behind(text, at + equals + 2, end, close);
    }

    private static int rawQuotes(byte[] text, int at, int end) {
        int quotes = 0;
        while (at + quotes < end && text[at + quotes] == '"') {
            quotes++;
        }
        byte[] close = new byte[quotes];
        Arrays.fill(close, (byte) '"');
        return behind(text, at + quotes, end, close);
    }

    /** 'a' or '\n'; not the 'a of a lifetime. */
    private static int character(byte[] text, int at, int end) {
        if (at + 2 >= end) {
            return -1;
        }
        if (text[at + 1] == '\\') {
            for (int i = at + 3; i < Math.min(end, at + 14) && text[i] != '\n'; i++) {
                if (text[i] == '\'') {
                    return i + 1;
                }
            }
            return -1;
        }
        int next = at + 2;
        while (next < end && (text[next] & 0xC0) == 0x80) {
            next++;
        }
        return next < end && text[next] == '\'' && text[at + 1] != '\n' ? next + 1 : -1;
    }

    private static int dollarTag(byte[] text, int at, int end) {
        int i = at + 1;
        while (i < end && (Character.isLetterOrDigit(text[i]) || text[i] == '_')) {
            i++;
        }
        if (i >= end || text[i] != '$' || at + 1 < i && text[at + 1] <= '9') {
            return -1;
        }
        return behind(text, i + 1, end, Arrays.copyOfRange(text, at, i + 1));
    }

    /**
     * The text after | or >, if nothing but signs for it stands behind: all lines that are empty or indented deeper
     * than the line at hand.
     */
    private static int block(byte[] text, int at, int end, int lineStart) {
        int i = at + 1;
        while (i < end && (text[i] == '-' || text[i] == '+' || text[i] >= '1' && text[i] <= '9')) {
            i++;
        }
        while (i < end && (text[i] == ' ' || text[i] == '\r')) {
            i++;
        }
        if (i < end && text[i] != '\n' && text[i] != '#') {
            return -1;
        }
        int before = at - 1;
        while (before >= lineStart && text[before] == ' ') {
            before--;
        }
        if (before < lineStart || text[before] != ':' && text[before] != '-') {
            return -1;
        }
        int indent = indent(text, lineStart, end);
        int stop = i;
        while (i < end && text[i] != '\n') {
            i++;
        }
        stop = Math.max(stop, i);
        while (i < end) {
            int line = i + 1;
            int next = line;
            while (next < end && text[next] != '\n') {
                next++;
            }
            int first = line + indent(text, line, end);
            boolean isEmpty = first >= next || text[first] == '\r';
            if (!isEmpty && first - line <= indent) {
                break;
            }
            if (!isEmpty) {
                stop = next;
            }
            i = next;
        }
        return stop;
    }

    private static int indent(byte[] text, int line, int end) {
        int i = line;
        while (i < end && text[i] == ' ') {
            i++;
        }
        return i - line;
    }

    /** Behind the next occurrence of an end, or the end of the text. */
    private static int behind(byte[] text, int from, int end, byte[] close) {
        for (int i = from; i + close.length <= end; i++) {
            if (text[i] == close[0] && Arrays.equals(text, i, i + close.length, close, 0, close.length)) {
                return i + close.length;
            }
        }
        return end;
    }

    /** A slash that a regular expression begins with: another one follows, not in brackets, on the line unless it may not. */
    int regex(byte[] text, int at, int end, boolean multiline) {
        boolean inClass = false;
        int last = Math.min(end, at + (multiline ? LONGEST_OF_LINES : LONGEST_REGEX));
        for (int i = at + 1; i < last && (multiline || text[i] != '\n'); i++) {
            switch (text[i]) {
                case '\\' -> i++;
                case '[' -> inClass = true;
                case ']' -> inClass = false;
                case '/' -> {
                    if (!inClass) {
                        i++;
                        while (i < end && text[i] >= 'a' && text[i] <= 'z') {
                            i++;
                        }
                        return i;
                    }
                }
                default -> {}
            }
        }
        return -1;
    }

    /** %w[a b], %q(x), %(x), %i{x}, %r!x!. */
    int percent(byte[] text, int at, int end, boolean afterValue) {
        int open = at + 1;
        if (open < end && "wWiIqQrsx".indexOf(text[open]) >= 0) {
            open++;
        } else if (afterValue) {
            return -1;
        }
        if (open >= end
                || text[open] <= ' '
                || text[open] == '='
                || Character.isLetterOrDigit(text[open])
                || afterValue && text[at - 1] != ' ' && text[at - 1] != '(') {
            return -1;
        }
        return behindQuoted(text, open, end);
    }

    /** Behind what a pair of brackets or equal signs enclose; brackets stand inside one another. */
    private static int behindQuoted(byte[] text, int open, int end) {
        byte first = text[open];
        byte close = (byte) (first == '(' ? ')' : first == '[' ? ']' : first == '{' ? '}' : first == '<' ? '>' : first);
        int depth = 1;
        for (int i = open + 1; i < end; i++) {
            byte c = text[i];
            if (c == '\\') {
                i++;
            } else if (c == close) {
                if (--depth == 0) {
                    return i + 1;
                }
            } else if (c == first) {
                depth++;
            }
        }
        return end;
    }

    /** q{x}, qw(a b), m!x!, s/a/b/x, tr/a/b/: -1 if the word is a name here. */
    int quoteWord(byte[] text, int start, int at, int end) {
        int open = at;
        while (open < end && (text[open] == ' ' || text[open] == '\t')) {
            open++;
        }
        if (open >= end
                || text[open] <= ' '
                || text[open] == ',' && open > at
                || text[open] == ';'
                || text[open] == ')'
                || text[open] == '=' && open > at
                || text[open] == '=' && open + 1 < end && text[open + 1] == '>'
                || text[open] == '}'
                || text[open] == ']'
                || text[open] == '.'
                || text[open] == '-' && open > at
                || text[open] == '#' && open > at
                || Character.isLetterOrDigit(text[open])
                || text[open] == '_'
                || text[open] == ':' && (open > at || open + 1 < end && text[open + 1] == ':')) {
            return -1;
        }
        boolean twice = text[start] == 's' || text[start] == 'y' || text[start] == 't';
        int until = behindQuoted(text, open, end);
        if (twice && until < end) {
            if ("([{<".indexOf(text[open]) >= 0) {
                int second = until;
                while (second < end && text[second] <= ' ') {
                    second++;
                }
                until = second < end ? behindQuoted(text, second, end) : end;
            } else {
                until = behindQuoted(text, until - 1, end);
            }
        }
        while (until < end && text[until] >= 'a' && text[until] <= 'z') {
            until++;
        }
        return until;
    }

    /**
     * Reads the word of {@code <<-'END'}.
     *
     * @param beforeQuotes whether blanks may stand before its quotes
     * @return null if there is none
     */
    Lexer.Heredoc heredocStart(byte[] text, int at, int operator, int lineEnd, boolean isRuby, boolean beforeQuotes) {
        int i = at + operator;
        boolean indented = false;
        if (i < lineEnd && (text[i] == '-' || text[i] == '~')) {
            indented = true;
            i++;
        }
        while (!isRuby && i < lineEnd && text[i] == ' ') {
            i++;
        }
        int quoted = i;
        while (beforeQuotes && quoted < lineEnd && text[quoted] == ' ') {
            quoted++;
        }
        i = quoted < lineEnd && (text[quoted] == '"' || text[quoted] == '\'') ? quoted : i;
        byte quote = i < lineEnd && (text[i] == '\'' || text[i] == '"' || text[i] == '`') ? text[i] : 0;
        if (quote == 0 && i < lineEnd && text[i] == '\\') {
            i++;
        }
        i += quote != 0 ? 1 : 0;
        int from = i;
        while (i < lineEnd && (quote != 0 ? text[i] != quote : Character.isLetterOrDigit(text[i]) || text[i] == '_')) {
            i++;
        }
        boolean isWord = i > from
                && (quote != 0 || !(text[from] >= '0' && text[from] <= '9'))
                && (quote != 0 || !isRuby || indented || text[from] >= 'A' && text[from] <= 'Z');
        if (!isWord) {
            return null;
        }
        afterWord = Math.min(lineEnd, i + (quote != 0 ? 1 : 0));
        return new Lexer.Heredoc(
                Arrays.copyOfRange(text, from, i), indented || operator == 3, quote == '\'' || quote == '`', null);
    }

    /** Behind the word that {@link #heredocStart} read. */
    int afterWord() {
        return afterWord;
    }

    /** Behind the word that ends a text, or the end of all. @param fillsLine whether nothing may stand behind it */
    int heredoc(byte[] text, int from, int end, Lexer.Heredoc heredoc, boolean fillsLine) {
        int line = from;
        while (line < end) {
            int i = line;
            while (heredoc.indented() && i < end && (text[i] == ' ' || text[i] == '\t')) {
                i++;
            }
            int after = i + heredoc.word().length;
            if (after <= end
                    && Arrays.equals(text, i, after, heredoc.word(), 0, heredoc.word().length)
                    && (after == end
                            || (fillsLine
                                    ? text[after] == '\n' || text[after] == '\r'
                                    : !Character.isLetterOrDigit(text[after]) && text[after] != '_'))) {
                return after;
            }
            while (line < end && text[line] != '\n') {
                line++;
            }
            line++;
        }
        return end;
    }
}
