package dev.oddbeacon.core.source.language;

import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.SpanForm.Option;
import dev.oddbeacon.core.source.language.SpanForm.Shape;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;

/**
 * Cuts a text into words, signs, comments and strings, as a {@link Language} says. Takes any bytes: what is not closed
 * ends with its line or with the text. Time grows with the length of the text; code inside strings is remembered on a
 * stack, not by recursion. For one thread; kept from file to file.
 */
public final class Lexer {
    private static final byte OTHER = 0;
    private static final byte LETTER = 1;
    private static final byte DIGIT = 2;
    private static final byte FEED = 3;
    private static final byte SIGN = 4;
    private static final int SPAN = 8; // a bit: comments, strings or names may begin so
    private static final int MOST_INSIDE = 200;
    /** No text takes so long, unless there is a mistake in here. In nanoseconds. */
    private static final long PATIENCE = 2_000_000_000L;

    private static final long PATIENCE_PER_BYTE = 1_000;
    private static final int LONGEST_OPERATOR_LINE = 200;

    private final Language language;
    private final byte[] classes = new byte[256];
    private final boolean[] inName = new boolean[256];
    private final boolean[] endsName = new boolean[256];
    private final SpanForm[][] forms = new SpanForm[256][]; // by first byte, the longest first
    private final boolean[] beforePrefixed = new boolean[256]; // what may follow a prefix
    private final boolean names;
    private final boolean sigils;
    private final String globals; // signs that are a name with a dollar before them
    private final boolean commands; // arguments without brackets, each line a statement
    private final boolean backslashes; // are signs like others
    private final boolean rawNames; // r#type
    private final boolean blankEscapes; // \z takes all blanks behind it
    private final boolean islands; // of code in other text
    private final Deque<Inside> inside = new ArrayDeque<>();
    private final List<Heredoc> heredocs = new ArrayList<>();
    private final SpanEnd spanEnd = new SpanEnd();
    private byte[] text;
    private int end;
    private int at;
    private int lineStart;
    private long lowStops; // bits of the characters below 64 at which a span is looked at closely
    private long highStops; // and of those from 64 to 127
    private boolean afterValue; // whether a value or a name stands before, so that a slash divides
    private TokenSink sink;
    private Found found;

    /** Code inside a string. */
    private static final class Inside {
        private final SpanForm form;
        private final byte open;
        private final byte close;
        private final int nested; // brackets of the string that are open
        private final int limit; // where the string ends at the latest
        private int depth;

        Inside(SpanForm form, byte open, int nested, int limit) {
            this.form = form;
            this.nested = nested;
            this.limit = limit;
            this.open = open == '(' || open == '[' ? open : (byte) '{';
            this.close = (byte) (open == '(' ? ')' : open == '[' ? ']' : '}');
        }
    }

    /** A text that begins with the next line. */
    record Heredoc(byte[] word, boolean indented, boolean isQuoted, SpanForm form) {
        /** @param form null if no code is inside */
        Heredoc of(SpanForm form) {
            return new Heredoc(word, indented, isQuoted, form);
        }
    }

    public Lexer(Language language) {
        this.language = language;
        this.names = language.hasNames();
        this.sigils = language.has("sigils");
        this.globals = sigils ? "\"'`/" : language.has("globals") ? "~*$?!@/\\;,.=:<>\"&'`+" : "";
        this.commands = language.has("commands");
        this.backslashes = language.has("backslashes");
        this.rawNames = language.has("raw-names");
        this.blankEscapes = language.has("blank-escapes");
        this.islands = language.has("islands");
        for (int c = 0; c < 256; c++) {
            boolean letter = c >= 'a' && c <= 'z'
                    || c >= 'A' && c <= 'Z'
                    || c >= 0x80
                    || language.letters().indexOf(c) >= 0;
            boolean digit = c >= '0' && c <= '9';
            inName[c] = letter || digit;
            endsName[c] = language.endings().indexOf(c) >= 0;
            classes[c] = letter || language.beginnings().indexOf(c) >= 0
                    ? LETTER
                    : digit ? DIGIT : c == '\n' ? FEED : c > ' ' && c < 0x7F ? SIGN : OTHER;
        }
        for (SpanForm form : language.forms()) {
            int first = form.start()[0] & 0xFF;
            boolean quoteWord = form.shape() == Shape.QUOTE_WORD;
            if (form.prefixes().isEmpty() && !quoteWord) {
                classes[first] |= SPAN;
            } else if (!quoteWord) {
                beforePrefixed[first] = true;
            }
            SpanForm[] before = forms[first] == null ? new SpanForm[0] : forms[first];
            forms[first] = Arrays.copyOf(before, before.length + 1);
            forms[first][before.length] = form;
        }
        for (SpanForm[] some : forms) {
            if (some != null) {
                Arrays.sort(some, (a, b) -> b.start().length - a.start().length);
            }
        }
    }

    /** Runs over a range of a text. */
    public void run(byte[] utf8, int from, int to, TokenSink into, Found collected) {
        text = utf8;
        at = from;
        end = to;
        sink = into;
        found = collected;
        lineStart = from;
        afterValue = false;
        inside.clear();
        heredocs.clear();
        if (islands) {
            at = island(from);
        }
        long deadline = System.nanoTime() + PATIENCE + (to - from) * PATIENCE_PER_BYTE;
        int steps = 0;
        if (from == 0 && language.has("hash-bang") && starts(0, '#', '!')) {
            at = lineEnd(0, end);
            found.region(0, at, Region.COMMENT);
        }
        while (at < end) {
            if ((++steps & 0xFFFF) == 0 && System.nanoTime() > deadline) {
                throw new IllegalStateException("the analysis takes too long");
            }
            int c = text[at] & 0xFF;
            int type = classes[c];
            if (type >= SPAN) {
                if (span(c)) {
                    continue;
                }
                type &= SPAN - 1;
            }
            switch (type) {
                case LETTER -> word();
                case DIGIT -> number();
                case FEED -> feed();
                case SIGN -> sign((byte) c);
                default -> at++;
            }
        }
    }

    /** Offset at which code begins again. */
    private int island(int from) {
        for (int i = from; i + 1 < end; i++) {
            if (text[i] == '<' && text[i + 1] == '?') {
                int code = i + 2;
                while (code < end && (text[code] == '=' || text[code] >= 'a' && text[code] <= 'z')) {
                    code++;
                }
                if (!starts(i + 2, 'x', 'm')) {
                    return code;
                }
            }
        }
        return end;
    }

    private boolean starts(int position, int first, int second) {
        return position + 1 < end && text[position] == first && text[position + 1] == second;
    }

    private int lineEnd(int from, int until) {
        int i = from;
        while (i < until && text[i] != '\n') {
            i++;
        }
        return i;
    }

    private void word() {
        int start = at;
        int i = start + 1;
        while (i < end && inName[text[i] & 0xFF]) {
            i++;
        }
        if (rawNames && i == start + 1 && text[start] == 'r' && isRawName(i)) {
            rawName();
            return;
        }
        if (i < end && endsName[text[i] & 0xFF] && !starts(i, text[i], '=') && !starts(i, text[i], text[i])) {
            i++;
        }
        at = i;
        if (i < end && beforePrefixed[text[i] & 0xFF] && prefixed(start)) {
            return;
        }
        if (forms[text[start] & 0xFF] != null && quoteWord(start)) {
            return;
        }
        long hash = WordTable.hash(text, start, i);
        Word word = language.table().find(text, start, i, hash);
        if (word.isName() && names) {
            found.name(start, i, hash);
        }
        afterValue = word.isName() || word.role() == Word.Role.VALUE || word.role() == Word.Role.CLOSES;
        sink.word(start, i, word);
    }

    /** {@code r#type}: a name, though it is a word with a meaning. */
    private boolean isRawName(int hash) {
        return hash + 1 < end && text[hash] == '#' && (classes[text[hash + 1] & 0xFF] & (SPAN - 1)) == LETTER;
    }

    private void rawName() {
        int start = at + 2;
        at = start;
        while (at < end && inName[text[at] & 0xFF]) {
            at++;
        }
        found.name(start, at, WordTable.hash(text, start, at));
        afterValue = true;
        sink.word(start, at, Word.NONE);
    }

    private void number() {
        int i = at + 1;
        while (i < end
                && (inName[text[i] & 0xFF] && text[i] >= 0
                        || text[i] == '.' && i + 1 < end && classes[text[i + 1] & 0xFF] == DIGIT
                        || text[i] == '\''
                                && language.has("digit-quotes")
                                && i + 1 < end
                                && inName[text[i + 1] & 0xFF])) {
            i++;
        }
        sink.literal(at, i);
        at = i;
        afterValue = true;
    }

    private void feed() {
        sink.line(at);
        at++;
        afterValue &= !commands;
        lineStart = at;
        if (!heredocs.isEmpty()) {
            List<Heredoc> begun = List.copyOf(heredocs);
            heredocs.clear();
            for (Heredoc heredoc : begun) {
                int until = spanEnd.heredoc(text, at, end, heredoc, !islands);
                if (begun.size() == 1 && heredoc.form != null && inside.isEmpty()) {
                    string(heredoc.form, at, at, 1, until);
                } else {
                    found.region(at, until, Region.STRING);
                    at = until;
                }
            }
            lineStart = at;
        }
    }

    private void sign(byte c) {
        Inside current = inside.peek();
        if (current != null) {
            if (c == current.open) {
                current.depth++;
            } else if (c == current.close && current.depth-- == 0) {
                inside.pop();
                string(current.form, at, at + 1, current.nested, current.limit);
                return;
            }
        }
        if (islands && c == '?' && starts(at, '?', '>')) {
            sink.sign(at, (byte) ';');
            at = island(at + 2);
            afterValue = false;
            return;
        }
        if (c == '\\'
                && at + 1 < end
                && !backslashes) { // takes the meaning from the next character, be it the end of the line
            at += 2;
            return;
        }
        if (c == '$' && at + 1 < end && globals.indexOf(text[at + 1]) >= 0 && text[at + 1] > 0) {
            sink.literal(at, at + 2);
            at += 2;
            afterValue = true;
            return;
        }
        if (c == '?' && commands && !afterValue && isCharacter()) {
            int until = at + (text[at + 1] == '\\' ? 3 : 2);
            found.region(at, Math.min(end, until), Region.STRING);
            sink.literal(at, Math.min(end, until));
            at = Math.min(end, until);
            afterValue = true;
            return;
        }
        sink.sign(at, c);
        at++;
        afterValue = c == ')' || c == ']' || c == '}' && !language.structure().isByKeyword();
    }

    /** Tries the forms that begin with a character. @return false if none does */
    private boolean span(int first) {
        for (SpanForm form : forms[first]) {
            if (form.prefixes().isEmpty()
                    && form.shape() != Shape.QUOTE_WORD
                    && matches(form.start(), at)
                    && isPlace(form)
                    && begin(form, at)) {
                return true;
            }
        }
        return false;
    }

    private boolean prefixed(int start) {
        for (SpanForm form : forms[text[at] & 0xFF]) {
            if (!form.prefixes().isEmpty()
                    && matches(form.start(), at)
                    && isPrefix(form, start)
                    && begin(form, start)) {
                return true;
            }
        }
        return false;
    }

    private boolean isPrefix(SpanForm form, int start) {
        if (form.prefixes().contains(SpanForm.ANY_NAME)) {
            return true;
        }
        for (String prefix : form.prefixes()) {
            boolean same = prefix.length() == at - start;
            for (int i = 0; same && i < prefix.length(); i++) {
                same = text[start + i] == prefix.charAt(i);
            }
            if (same) {
                return true;
            }
        }
        return false;
    }

    private boolean quoteWord(int start) {
        for (SpanForm form : forms[text[start] & 0xFF]) {
            if (form.shape() == Shape.QUOTE_WORD && at - start == form.start().length && matches(form.start(), start)) {
                int until = spanEnd.quoteWord(text, start, at, end);
                if (until > 0
                        && !(start > 0
                                && (text[start - 1] == '>'
                                        || text[start - 1] == '{' && until > at && text[at] == '}'
                                        || text[start - 1] == '$'
                                        || text[start - 1] == '@'
                                        || text[start - 1] == '%'
                                        || text[start - 1] == '-' // a test of a file: -s
                                        || text[start - 1] == '&'))) {
                    finish(form, start, until);
                    return true;
                }
            }
        }
        return false;
    }

    private boolean matches(byte[] sample, int position) {
        if (position + sample.length > end) {
            return false;
        }
        for (int i = 1; i < sample.length; i++) {
            if (text[position + i] != sample[i]) {
                return false;
            }
        }
        return text[position] == sample[0];
    }

    private boolean isPlace(SpanForm form) {
        if (sigils && form.region() == Region.COMMENT && at > lineStart && text[at - 1] == '$') {
            return false; // $#rows
        }
        if (islands && text[at] == '#' && at + 1 < end && text[at + 1] == '[') {
            return false; // an attribute
        }
        if (form.has(Option.LINE_START) && at != lineStart) {
            return false;
        }
        if (form.has(Option.LINE_FIRST)) {
            for (int i = lineStart; i < at; i++) {
                if (text[i] != ' ' && text[i] != '\t') {
                    return false;
                }
            }
        }
        if (form.has(Option.WORD_START) && at > lineStart) {
            byte before = text[at - 1];
            String others = form.region() == Region.COMMENT ? ";&|()" : "([{;&|:,=!<";
            return before <= ' ' && before >= 0 || others.indexOf(before) >= 0;
        }
        return true;
    }

    /** @param start where the form begins, its prefix included; at is behind the prefix */
    private boolean begin(SpanForm form, int start) {
        switch (form.shape()) {
            case PLAIN -> string(form, start, at + form.start().length, 1, end);
            case HEREDOC -> {
                boolean isShift = afterValue && language.has("shifts") && at > 0 && text[at - 1] != ' ';
                Heredoc heredoc = isShift || at > 0 && text[at - 1] == '<' // <<<"a string"
                        ? null
                        : spanEnd.heredocStart(
                                text,
                                at,
                                form.start().length,
                                lineEnd(at, Math.min(end, at + LONGEST_OPERATOR_LINE)),
                                language.has("shifts"),
                                sigils);
                if (heredoc == null) {
                    return false;
                }
                heredocs.add(
                        heredoc.isQuoted || form.interpolations().isEmpty() ? heredoc : heredoc.of(form.withoutEnd()));
                int until = spanEnd.afterWord();
                sink.literal(at, until);
                at = until;
                afterValue = true;
            }
            case REGEX -> {
                int until = afterValue && !isArgument() || isOperatorName()
                        ? -1
                        : spanEnd.regex(text, at, end, form.has(Option.MULTILINE) || sigils && isMatched());
                if (until < 0) {
                    return false;
                }
                if (form.interpolations().isEmpty()) {
                    finish(form, start, until);
                } else {
                    string(form, start, at + form.start().length, 1, end);
                }
            }
            case PERCENT -> {
                int until = isOperatorName() ? -1 : spanEnd.percent(text, at, end, afterValue && !isArgument());
                if (until < 0) {
                    return false;
                }
                if ("wiqs".indexOf(text[at + 1]) >= 0) { // no code inside
                    finish(form, start, until);
                } else {
                    int open = at + (inName[text[at + 1] & 0xFF] ? 2 : 1);
                    string(form.between(text[open], text[at + 1] == 'r'), start, open + 1, 1, until);
                }
            }
            case REST -> finish(form, start, end);
            default -> {
                int until = spanEnd.of(form, text, at, end, lineStart);
                if (until < 0) {
                    return false;
                }
                finish(form, start, until);
            }
        }
        return true;
    }

    /** Whether a sign is the first of an argument without brackets: {@code puts /x/}, not {@code a / b}. */
    private boolean isArgument() {
        if (sigils && isBehind("split")) {
            return true; // split/x/
        }
        return (commands || sigils)
                && at >= lineStart + 2
                && text[at - 1] == ' '
                && (inName[text[at - 2] & 0xFF] || endsName[text[at - 2] & 0xFF])
                && isCalled(at - 2)
                && at + 1 < end
                && text[at + 1] > ' '
                && (text[at + 1] != '=' || sigils);
    }

    /** Whether a word stands directly before, and no sign makes it the name of something. */
    private boolean isBehind(String word) {
        int from = at - word.length();
        if (from < lineStart
                || from > lineStart && (inName[text[from - 1] & 0xFF] || "$@%&>".indexOf(text[from - 1]) >= 0)) {
            return false;
        }
        for (int i = 0; i < word.length(); i++) {
            if (text[from + i] != word.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    /** {@code ?a}, a character: one that no name follows. */
    private boolean isCharacter() {
        return at + 1 < end
                && text[at + 1] > ' '
                && !(at + 2 < end && inName[text[at + 2] & 0xFF] && text[at + 1] != '\\');
    }

    /** Whether the sign at hand is the name of a method: {@code def /(x)}, {@code def it.%(x)}, {@code :/}. */
    private boolean isOperatorName() {
        return commands
                && at > lineStart
                && (text[at - 1] == '.'
                        || text[at - 1] == ':' && !(at >= 2 && text[at - 2] == ':')
                        || at >= 4
                                && text[at - 1] == ' '
                                && (text[at - 4] == 'd' && text[at - 3] == 'e' && text[at - 2] == 'f'
                                        || text[at - 4] == 'i' && text[at - 3] == 'a' && text[at - 2] == 's'));
    }

    /** Whether a sign stands before that no value ends with: {@code =~}, {@code (}. */
    private boolean isMatched() {
        int before = at - 1;
        while (before > lineStart && text[before] == ' ') {
            before--;
        }
        return before > lineStart && "~=(,!&|?:".indexOf(text[before]) >= 0;
    }

    /** Whether the word that ends at an offset may be that of a call: no number, and no variable. */
    private boolean isCalled(int last) {
        int from = last;
        while (from > lineStart && inName[text[from - 1] & 0xFF]) {
            from--;
        }
        return classes[text[from] & 0xFF] != DIGIT && (from == lineStart || "$@%".indexOf(text[from - 1]) < 0);
    }

    /** Goes on behind a span. */
    private void finish(SpanForm form, int start, int until) {
        at = until;
        for (int i = until - 1; i >= Math.max(start, lineStart); i--) {
            if (text[i] == '\n') {
                lineStart = i + 1;
                break;
            }
        }
        if (form.region() == Region.COMMENT) {
            found.region(start, until, Region.COMMENT);
        } else if (form.has(Option.NAME)) {
            int from = start + form.start().length;
            int to = Math.max(from, until - form.end().length);
            long hash = WordTable.hash(text, from, to);
            if (to > from && names) {
                found.name(from, to, hash);
                sink.word(from, to, Word.NONE);
            }
            afterValue = true;
        } else {
            found.region(start, until, Region.STRING);
            sink.literal(start, until);
            afterValue = true;
        }
    }

    /** A span from where it begins, or goes on behind code inside, to its end or to the next code inside. */
    private void string(SpanForm form, int start, int from, int nested, int limit) {
        byte[] close = form.end();
        boolean multiline = form.has(Option.MULTILINE)
                || form.has(Option.NESTED)
                || form.region() == Region.COMMENT && close.length > 0;
        markStops(form, multiline);
        int depth = nested;
        int i = from;
        while (i < limit) {
            byte c = text[i];
            if (c >= 0 && ((c < Long.SIZE ? lowStops : highStops) >>> c & 1) == 0) {
                i++;
                continue;
            }
            if (c == '\n' && !multiline) {
                break;
            }
            if (islands && c == '?' && form.region() == Region.COMMENT && close.length == 0 && starts(i, '?', '>')) {
                break;
            }
            byte[] interpolation = interpolation(form, i);
            if (interpolation != null) {
                if (form.has(Option.DOUBLED) && matches(interpolation, i + interpolation.length)) {
                    i += 2 * interpolation.length;
                    continue;
                }
                int code = i + interpolation.length;
                if (inside.size() < MOST_INSIDE) {
                    finish(form, start, code);
                    inside.push(new Inside(form, interpolation[interpolation.length - 1], depth, limit));
                    afterValue = false;
                    return;
                }
            }
            if (c == form.escape()) {
                i += i + 1 < end && text[i + 1] == '\r' ? 3 : 2;
                while (blankEscapes && i < limit && text[i - 1] == 'z' && text[i] >= 0 && text[i] <= ' ') {
                    i++;
                }
                continue;
            }
            if (close.length > 0 && c == close[0] && matches(close, i)) {
                if (form.has(Option.DOUBLED) && matches(close, i + close.length)) {
                    i += 2 * close.length;
                    continue;
                }
                i += close.length;
                if (--depth == 0) {
                    while (form.shape() == Shape.REGEX && i < end && text[i] >= 'a' && text[i] <= 'z') {
                        i++;
                    }
                    finish(form, start, i);
                    return;
                }
                continue;
            }
            if (form.has(Option.NESTED) && c == form.start()[0] && matches(form.start(), i)) {
                depth++;
                i += form.start().length;
                continue;
            }
            i++;
        }
        finish(form, start, Math.min(i, limit));
    }

    /** Notes the characters of ASCII at which a span may end or change. All others are passed without a closer look. */
    private void markStops(SpanForm form, boolean multiline) {
        lowStops = 0;
        highStops = 0;
        stopAt(multiline ? -1 : '\n');
        stopAt(islands ? '?' : -1);
        stopAt(form.escape());
        stopAt(form.end().length > 0 ? form.end()[0] : -1);
        stopAt(form.has(Option.NESTED) ? form.start()[0] : -1);
        List<byte[]> interpolations = form.interpolations();
        for (int i = 0; i < interpolations.size(); i++) {
            stopAt(interpolations.get(i)[0]);
        }
    }

    private void stopAt(int c) {
        if (c >= Long.SIZE) {
            highStops |= 1L << c;
        } else if (c >= 0) {
            lowStops |= 1L << c;
        }
    }

    private byte[] interpolation(SpanForm form, int position) {
        List<byte[]> interpolations = form.interpolations();
        for (int i = 0; i < interpolations.size(); i++) { // an iterator for each character is seen in the profile
            byte[] interpolation = interpolations.get(i);
            if (text[position] == interpolation[0] && matches(interpolation, position)) {
                return interpolation;
            }
        }
        return null;
    }
}
