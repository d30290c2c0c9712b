package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Lexer;
import dev.oddbeacon.core.source.language.TokenSink;
import dev.oddbeacon.core.source.language.Word;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** The code of a text as tokens, which are numbered from 0, with the brackets that belong together. Offsets are bytes of the text. */
final class Code implements TokenSink {
    private static final byte NAME = 1;
    private static final byte RESERVED = 2;
    private static final byte LITERAL = 3;
    private static final int NONE = -1;

    private final byte[] text;
    private int[] starts = new int[1_024];
    private int[] ends = new int[1_024];
    /** A kind, or a sign as it is. */
    private byte[] kinds = new byte[1_024];

    private boolean[] first = new boolean[1_024];
    private int count;
    private boolean isLineNew = true;
    private final int[] partners;
    private int[] around = {};

    private Code(Language language, byte[] text) {
        this.text = text;
        new Lexer(language).run(text, 0, text.length, this, new Found());
        partners = partners();
    }

    static Code of(Language language, byte[] text) {
        return new Code(language, text);
    }

    @Override
    public void word(int start, int end, Word word) {
        add(start, end, word.isName() ? NAME : RESERVED);
    }

    @Override
    public void sign(int at, byte sign) {
        add(at, at + 1, sign);
    }

    @Override
    public void literal(int start, int end) {
        add(start, end, LITERAL);
    }

    @Override
    public void line(int at) {
        isLineNew = true;
    }

    private void add(int start, int end, byte kind) {
        if (count == starts.length) {
            starts = Arrays.copyOf(starts, count * 2);
            ends = Arrays.copyOf(ends, count * 2);
            kinds = Arrays.copyOf(kinds, count * 2);
            first = Arrays.copyOf(first, count * 2);
        }
        starts[count] = start;
        ends[count] = end;
        kinds[count] = kind;
        first[count++] = isLineNew;
        isLineNew = false;
    }

    private int[] partners() {
        int[] found = new int[count];
        Arrays.fill(found, NONE);
        around = new int[count];
        int[] open = new int[16];
        int depth = 0;
        for (int token = 0; token < count; token++) {
            byte kind = kinds[token];
            around[token] = depth == 0 ? NONE : open[depth - 1];
            if (kind == '(' || kind == '[' || kind == '{') {
                open = depth == open.length ? Arrays.copyOf(open, depth * 2) : open;
                open[depth++] = token;
            } else if (kind == ')' || kind == ']' || kind == '}') {
                byte opening = (byte) (kind == ')' ? '(' : kind == ']' ? '[' : '{');
                int at = depth;
                while (at > 0 && kinds[open[at - 1]] != opening) {
                    at--;
                }
                if (at > 0) {
                    depth = at - 1;
                    found[token] = open[depth];
                    found[open[depth]] = token;
                }
            }
        }
        return found;
    }

    int count() {
        return count;
    }

    int start(int token) {
        return starts[token];
    }

    int end(int token) {
        return ends[token];
    }

    /** The first token that ends behind an offset; the count if there is none. */
    int at(long offset) {
        int low = 0;
        int high = count;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (ends[middle] <= offset) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    private byte kind(int token) {
        return token < 0 || token >= count ? 0 : kinds[token];
    }

    /** Whether a token is a sign; false for numbers outside the text. */
    boolean is(int token, char sign) {
        return kind(token) == sign;
    }

    /** Whether signs stand there, one behind the other and nothing between. */
    boolean are(int token, String signs) {
        for (int i = 0; i < signs.length(); i++) {
            if (kind(token + i) != signs.charAt(i) || i > 0 && starts[token + i] != ends[token + i - 1]) {
                return false;
            }
        }
        return true;
    }

    boolean isName(int token) {
        return kind(token) == NAME;
    }

    boolean isReserved(int token) {
        return kind(token) == RESERVED;
    }

    boolean isLiteral(int token) {
        return kind(token) == LITERAL;
    }

    /** Whether a token is that word, with a meaning or without. */
    boolean is(int token, String word) {
        if (kind(token) != NAME && kind(token) != RESERVED || ends[token] - starts[token] != word.length()) {
            return false;
        }
        for (int i = 0; i < word.length(); i++) {
            if (text[starts[token] + i] != word.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    /** Whether it is the first of its line. */
    boolean isFirst(int token) {
        return token >= 0 && token < count && first[token];
    }

    String text(int token) {
        return token < 0 || token >= count
                ? ""
                : new String(text, starts[token], ends[token] - starts[token], StandardCharsets.UTF_8);
    }

    /** The first part of a qualified name that ends at a token. */
    int firstPart(int last) {
        int at = last;
        while (is(at - 1, '.') && isName(at - 2)) {
            at -= 2;
        }
        return at;
    }

    /** The innermost bracket around a token; -1 if there is none. */
    int around(int token) {
        return token < 0 || token >= count ? NONE : around[token];
    }

    /** The brace of the innermost block around a token; -1 if there is none. */
    int blockAround(int token) {
        int at = around(token);
        while (at >= 0 && kinds[at] != '{') {
            at = around[at];
        }
        return at;
    }

    /** The bracket that belongs to one; -1 if it has none. */
    int partner(int token) {
        return token < 0 || token >= count ? NONE : partners[token];
    }
}
