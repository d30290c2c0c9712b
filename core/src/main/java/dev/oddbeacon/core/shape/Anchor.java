package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.shape.Elements.Element;
import dev.oddbeacon.core.shape.Elements.Element.Literal;
import dev.oddbeacon.core.shape.Elements.Element.Single;
import dev.oddbeacon.core.source.Region;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/**
 * A word of a shape that stands in few places of a text: looking for it, and at the bytes beside it, costs less than
 * telling tokens. Immutable.
 */
final class Anchor {
    static final int NONE = -1;
    private static final int SHORTEST = 3;

    private final int token;
    private final int fromFirst;
    private final byte[] word;
    private final boolean folds;
    private final int before;
    private final int after;

    private Anchor(Elements code, int element, int fromFirst, boolean folds) {
        this.folds = folds;
        this.fromFirst = fromFirst;
        token = ((Literal) code.all().get(element)).token();
        word = bytes(code, element);
        byte[] left = element > 0 ? bytes(code, element - 1) : new byte[0];
        byte[] right = element + 1 < code.all().size() ? bytes(code, element + 1) : new byte[0];
        before = left.length == 0 ? NONE : left[left.length - 1];
        after = right.length == 0 ? NONE : right[0];
    }

    /**
     * The longest word that is not reserved: of those that stand before every variable but the first, if there is one,
     * so that it tells where a match begins.
     *
     * @return empty if the shape has no such word
     */
    static Optional<Anchor> of(Elements code, boolean ignoresCase) {
        boolean folds = ignoresCase || code.tokens().language.ignoresCase();
        List<Element> all = code.all();
        int first = all.getFirst() instanceof Single ? 1 : 0;
        int end = first;
        while (end < all.size() && all.get(end) instanceof Literal) {
            end++;
        }
        int leading = longest(code, first, end);
        if (leading != NONE) {
            return Optional.of(new Anchor(code, leading, leading - first, folds));
        }
        int any = longest(code, end, all.size());
        return any == NONE ? Optional.empty() : Optional.of(new Anchor(code, any, NONE, folds));
    }

    private static int longest(Elements code, int from, int to) {
        Tokens tokens = code.tokens();
        int longest = NONE;
        int length = SHORTEST - 1;
        for (int i = from; i < to; i++) {
            if (code.all().get(i) instanceof Literal(int token)
                    && tokens.kind(token) == Tokens.WORD
                    && tokens.word(token).isName()
                    && tokens.end(token) - tokens.start(token) > length
                    && tokens.text(token).chars().allMatch(c -> c < 0x80)) {
                longest = i;
                length = tokens.end(token) - tokens.start(token);
            }
        }
        return longest;
    }

    /** What a literal is written as; empty for a variable or a string. */
    private static byte[] bytes(Elements code, int element) {
        return code.all().get(element) instanceof Literal(int literal)
                        && code.tokens().kind(literal) != Tokens.STRING
                ? code.tokens().text(literal).getBytes(StandardCharsets.UTF_8)
                : new byte[0];
    }

    /** The token of the shape. */
    int token() {
        return token;
    }

    /** Whether it tells where a match begins. */
    boolean leads() {
        return fromFirst != NONE;
    }

    /** How many tokens behind the first literal it stands, if it leads. */
    int fromFirst() {
        return fromFirst;
    }

    /** The next offset at which it may stand, or {@link #NONE}. */
    int next(byte[] text, int from, RegionSource regions) {
        int last = text.length - word.length;
        int first = fold(word[0]);
        for (int at = from; at <= last; at++) {
            if (fold(text[at]) == first && stands(text, at) && isBetween(text, at, regions)) {
                return at;
            }
        }
        return NONE;
    }

    private boolean stands(byte[] text, int at) {
        for (int i = 1; i < word.length; i++) {
            if (fold(text[at + i]) != fold(word[i])) {
                return false;
            }
        }
        return true;
    }

    private boolean isBetween(byte[] text, int at, RegionSource regions) {
        int left = at - 1;
        while (left >= 0 && isBlank(text[left])) {
            left--;
        }
        int right = at + word.length;
        while (right < text.length && isBlank(text[right])) {
            right++;
        }
        return isBeside(text, left, before, regions)
                && regions.region(at) == Region.CODE
                && isBeside(text, right, after, regions);
    }

    private boolean isBeside(byte[] text, int at, int expected, RegionSource regions) {
        if (expected == NONE) {
            return true;
        }
        if (at < 0 || at >= text.length) {
            return false;
        }
        return fold(text[at]) == fold(expected)
                || text[at] == '\\' // a line that goes on
                || regions.region(at) != Region.CODE;
    }

    private static boolean isBlank(byte c) {
        return c >= 0 && c <= ' ' || c == 0x7F;
    }

    private int fold(int c) {
        return folds && c >= 'A' && c <= 'Z' ? c + ('a' - 'A') : c;
    }
}
