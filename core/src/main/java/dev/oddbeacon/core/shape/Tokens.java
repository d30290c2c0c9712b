package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;
import dev.oddbeacon.core.source.language.WordTable;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.function.BooleanSupplier;

/**
 * A text as a sequence of tokens: words, numbers, strings and signs, without blanks and comments. A string with code
 * inside is several tokens, of which the parts of the string are brackets. For one thread; kept from file to file.
 */
final class Tokens {
    static final byte WORD = 1;
    static final byte NUMBER = 2;
    static final byte STRING = 3;
    static final byte SIGN = 4;

    static final int NONE = -1;
    private static final int CLOSES_CODE =
            1 << 24; // of a part of a string, whose lowest byte is the bracket that ends it
    private static final int KEPT = 1 << 18;
    /** Signs that are written with several characters and mean one thing. Those of two brackets, as {@code >>}, stay apart. */
    private static final String[] LONG_SIGNS = {
        "===", "!==", "...", "**=", "<=>", "&&=", "||=", "??=", "<<=", "==", "!=", "<=", ">=", "+=", "-=", "*=", "/=",
        "%=", "&=", "|=", "^=", "=>", "->", "::", "++", "--", "&&", "||", "?.", "??", "?:", "..", "**", ":=", "=~",
        "!~", "~=", "//"
    };

    private static final byte[][][] LONG_BY_FIRST = new byte[128][][];

    static {
        for (String sign : LONG_SIGNS) {
            int first = sign.charAt(0);
            byte[][] before = LONG_BY_FIRST[first] == null ? new byte[0][] : LONG_BY_FIRST[first];
            LONG_BY_FIRST[first] = Arrays.copyOf(before, before.length + 1);
            LONG_BY_FIRST[first][before.length] = sign.getBytes(StandardCharsets.US_ASCII);
        }
    }

    final Language language;
    private final boolean[] letters = new boolean[256];
    private byte[] text = {};
    private int size;
    private byte[] kinds = new byte[256];
    private int[] starts = new int[256];
    private int[] ends = new int[256];
    private int[] codes = new int[256];
    private int[] mates = new int[256];
    private int[] openings = new int[256];
    private int[] around = new int[256];
    private boolean[] breaks = new boolean[256];
    private int[] open = new int[16];
    private int depth;
    private boolean breakBefore;
    private boolean isCutBefore; // whether the text goes on there
    private boolean isCutBehind;
    private int first; // the token beside a cut: who asks for it may want to know what comes next
    private int last;
    private boolean touches;

    Tokens(Language language) {
        this.language = language;
        for (int c = 0; c < 256; c++) {
            letters[c] = language.isLetter((byte) c);
        }
    }

    /**
     * Cuts a text.
     *
     * @param stop asked now and then
     * @throws ScanStoppedException once it is told to stop
     */
    void read(byte[] utf8, RegionSource regions, BooleanSupplier stop) {
        read(utf8, 0, utf8.length, regions, stop);
    }

    /**
     * Cuts a part of a text, between two lines of it. {@link #touches} tells whether something was asked since that the
     * rest may answer otherwise.
     */
    void read(byte[] utf8, int from, int to, RegionSource regions, BooleanSupplier stop) {
        isCutBefore = from > 0;
        isCutBehind = to < utf8.length;
        touches = false;
        cut(utf8, from, to, regions, stop);
        first = isCutBefore ? 0 : Integer.MIN_VALUE;
        last = isCutBehind ? size - 1 : Integer.MAX_VALUE;
    }

    private void cut(byte[] utf8, int from, int to, RegionSource regions, BooleanSupplier stop) {
        text = utf8;
        size = 0;
        depth = 0;
        breakBefore = false;
        if (kinds.length > KEPT) {
            grow(256);
        }
        for (int at = from; at < to; ) {
            Region region = regions.region(at);
            int end = Math.min(to, regions.end());
            while (end < to && regions.region(end) == region) {
                end = Math.min(to, regions.end());
            }
            switch (region) {
                case CODE -> code(at, end);
                case STRING -> string(at, end);
                case COMMENT -> {
                    for (int i = at; i < end; i++) {
                        breakBefore |= text[i] == '\n';
                    }
                }
            }
            at = end;
            if (stop.getAsBoolean()) {
                throw new ScanStoppedException();
            }
        }
        while (depth > 0) {
            mates[open[--depth]] = NONE;
        }
    }

    private void code(int from, int to) {
        int at = from;
        while (at < to) {
            int c = text[at] & 0xFF;
            if (c >= '0' && c <= '9') {
                int end = at + 1;
                while (end < to && isOfNumber(end, to)) {
                    end++;
                }
                add(NUMBER, at, end, 0);
                at = end;
            } else if (letters[c]) {
                int end = at + 1;
                while (end < to && letters[text[end] & 0xFF]) {
                    end++;
                }
                add(WORD, at, end, 0);
                at = end;
            } else if (c <= ' ' || c == 0x7F) {
                breakBefore |= c == '\n';
                at++;
            } else if (c == '\\' && at + 1 < to && text[at + 1] == '\n') {
                at += 2; // the line goes on
            } else {
                at = sign(at, to);
            }
        }
    }

    private boolean isOfNumber(int at, int to) {
        return letters[text[at] & 0xFF] && text[at] >= 0
                || text[at] == '.' && at + 1 < to && text[at + 1] >= '0' && text[at + 1] <= '9'
                || text[at] == '\'' && language.has("digit-quotes") && at + 1 < to && letters[text[at + 1] & 0xFF];
    }

    private int sign(int at, int to) {
        int first = text[at];
        int length = 1;
        byte[][] longer = first > 0 ? LONG_BY_FIRST[first] : null;
        if (longer != null) {
            for (byte[] sign : longer) {
                if (at + sign.length <= to && Arrays.equals(text, at, at + sign.length, sign, 0, sign.length)) {
                    length = sign.length;
                    break;
                }
            }
        }
        int code = 0;
        for (int i = length - 1; i >= 0; i--) {
            code = code << 8 | text[at + i] & 0xFF;
        }
        add(SIGN, at, at + length, code);
        if (code == '(' || code == '[' || code == '{') {
            push();
        } else if (code == ')' || code == ']' || code == '}') {
            close(code == ')' ? '(' : code == ']' ? '[' : '{');
        }
        return at + length;
    }

    private void string(int from, int to) {
        add(STRING, from, to, 0);
        byte first = text[from];
        if (first == '}' || first == ')' || first == ']') {
            if (depth > 0 && kinds[open[depth - 1]] == STRING) {
                pair(open[--depth]);
                codes[size - 1] = CLOSES_CODE;
            } else {
                touches |= isCutBefore;
            }
        }
        byte last = text[to - 1];
        if (to - from > 1 && (last == '{' || last == '(' || last == '[')) {
            codes[size - 1] |= last;
            push();
        }
    }

    private void push() {
        if (depth == open.length) {
            open = Arrays.copyOf(open, depth * 2);
        }
        open[depth++] = size - 1;
    }

    /** The nearest open bracket of a kind; those within that stay open are none. */
    private void close(int code) {
        int found = depth - 1;
        while (found >= 0 && (codes[open[found]] != code || kinds[open[found]] != SIGN)) {
            found--;
        }
        if (found < 0) {
            touches |= isCutBefore && depth > 0;
            return;
        }
        while (depth - 1 > found) {
            mates[open[--depth]] = NONE;
        }
        pair(open[--depth]);
    }

    private void pair(int opening) {
        mates[opening] = size - 1;
        openings[size - 1] = opening;
        around[size - 1] = depth == 0 ? NONE : open[depth - 1];
    }

    private void add(byte kind, int start, int end, int code) {
        if (size == kinds.length) {
            grow(size * 2);
        }
        kinds[size] = kind;
        starts[size] = start;
        ends[size] = end;
        codes[size] = code;
        mates[size] = NONE;
        openings[size] = NONE;
        around[size] = depth == 0 ? NONE : open[depth - 1];
        breaks[size] = breakBefore;
        breakBefore = false;
        size++;
    }

    private void grow(int length) {
        kinds = Arrays.copyOf(kinds, length);
        starts = Arrays.copyOf(starts, length);
        ends = Arrays.copyOf(ends, length);
        codes = Arrays.copyOf(codes, length);
        mates = Arrays.copyOf(mates, length);
        openings = Arrays.copyOf(openings, length);
        around = Arrays.copyOf(around, length);
        breaks = Arrays.copyOf(breaks, length);
    }

    int size() {
        return size;
    }

    /** The token that begins at an offset; {@link #NONE} if none does. */
    int at(int offset) {
        return Math.max(NONE, Arrays.binarySearch(starts, 0, size, offset));
    }

    /** Whether what was told since this was cut, or since it was forgotten, may be otherwise in the whole text. */
    boolean touches() {
        return touches;
    }

    void forgetTouch() {
        touches = false;
    }

    private void look(int token) {
        touches |= token <= first || token >= last;
    }

    /** @return 0 before the first and behind the last */
    byte kind(int token) {
        look(token);
        return token >= 0 && token < size ? kinds[token] : 0;
    }

    int start(int token) {
        return starts[token];
    }

    int end(int token) {
        return ends[token];
    }

    /** Whether a line ends before a token. */
    boolean breaksBefore(int token) {
        look(token);
        return breaks[token];
    }

    /** The characters of a sign, the first in the lowest byte; 0 of what is none, or no token. */
    int sign(int token) {
        look(token);
        return token >= 0 && token < size && kinds[token] == SIGN ? codes[token] : 0;
    }

    /** The bracket that closes one; {@link #NONE} if none does, or the token is none that opens. */
    int mate(int token) {
        int mate = mates[token];
        touches |= mate == NONE ? isCutBehind && opens(token) : mate >= last;
        return mate;
    }

    /** The bracket that one closes; {@link #NONE} if it closes none, or is none that closes. */
    int opening(int token) {
        int opening = openings[token];
        touches |= opening == NONE ? isCutBefore && closes(token) : opening <= first;
        return opening;
    }

    /** Whether a token opens what another closes, be it in vain. */
    boolean opens(int token) {
        look(token);
        int code = codes[token] & 0xFF;
        return code == '(' || code == '[' || code == '{';
    }

    /** Whether a token is a bracket that closes, or the end of code in a string. */
    boolean closes(int token) {
        look(token);
        int code = codes[token];
        return code == ')' || code == ']' || code == '}' || (code & CLOSES_CODE) != 0;
    }

    /** The token itself, or the bracket that it closes; {@link #NONE} if nothing opened that. */
    int before(int token) {
        int at = token;
        while (closes(at)) {
            at = opening(at);
            if (at < 0) {
                return NONE;
            }
        }
        return at;
    }

    /** The bracket that a token stands in; {@link #NONE} outside of all, and behind the last token. */
    int around(int token) {
        look(token);
        int opening = token < size ? around[token] : NONE;
        touches |= isCutBefore && opening == NONE;
        return opening;
    }

    /** The token behind one, or behind what it opens; {@link #NONE} if that is not closed. */
    int behind(int token) {
        int at = token;
        while (opens(at)) {
            at = mate(at);
            if (at < 0) {
                return NONE;
            }
        }
        return at + 1;
    }

    /** The meaning of a word in its language. */
    Word word(int token) {
        look(token);
        int start = starts[token];
        int end = ends[token];
        return language.table().find(text, start, end, WordTable.hash(text, start, end));
    }

    /** Whether two tokens, of one text or two, are the same. */
    boolean same(int token, Tokens other, int otherToken, boolean ignoresCase) {
        look(token);
        byte kind = kinds[token];
        if (kind != other.kinds[otherToken]) {
            return false;
        }
        if (kind == SIGN) {
            return codes[token] == other.codes[otherToken];
        }
        int start = starts[token];
        int end = ends[token];
        int otherStart = other.starts[otherToken];
        int otherEnd = other.ends[otherToken];
        boolean folds = ignoresCase || kind == WORD && language.ignoresCase();
        return folds
                ? Fold.same(text, start, end, other.text, otherStart, otherEnd)
                : Arrays.equals(text, start, end, other.text, otherStart, otherEnd);
    }

    String text(int token) {
        return new String(text, starts[token], ends[token] - starts[token], StandardCharsets.UTF_8);
    }
}
