package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.shape.Elements.Element.Literal;
import dev.oddbeacon.core.shape.Elements.Element.Run;
import dev.oddbeacon.core.shape.Elements.Element.Single;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/** Goes along the elements of a shape and tokens of the text. */
final class Walk {
    private static final int STEPS_BETWEEN = 0xFFF;

    private final Tokens tokens;
    private final Operands operands;
    private final Tokens shape;
    private final List<Elements.Element> elements;
    private final Bindings bindings;
    private final boolean ignoresCase;
    private final BooleanSupplier stop;
    private final Optional<Check> check;
    private final Optional<BitSet> failed; // by element and token; none if that depends on what was bound
    private int begin;
    private int end;
    private int steps;

    /** Whether a range of tokens, in which all elements stand, is a match. */
    interface Check {
        boolean holds(int from, int to);
    }

    /**
     * @param bindings what variables stand for; those that stand for something already stand for the same again
     * @param check empty if whatever the elements stand in is a match
     * @param isAlone whether nothing is bound when a match is looked for
     * @param stop asked now and then
     */
    Walk(
            Elements code,
            Tokens tokens,
            Operands operands,
            Bindings bindings,
            Optional<Check> check,
            boolean isAlone,
            boolean ignoresCase,
            BooleanSupplier stop) {
        this.tokens = tokens;
        this.operands = operands;
        this.shape = code.tokens();
        this.elements = code.all();
        this.bindings = bindings;
        this.check = check;
        this.ignoresCase = ignoresCase;
        this.stop = stop;
        this.failed = check.isEmpty() && isAlone && bindOnce() ? Optional.of(new BitSet()) : Optional.empty();
    }

    /** The token behind the last match. */
    int end() {
        return end;
    }

    /** Whether no variable stands twice. */
    private boolean bindOnce() {
        long bound = elements.stream()
                .mapToInt(this::number)
                .filter(number -> number >= 0)
                .count();
        return bound
                == elements.stream()
                        .mapToInt(this::number)
                        .filter(number -> number >= 0)
                        .distinct()
                        .count();
    }

    private int number(Elements.Element element) {
        return switch (element) {
            case Literal _ -> -1;
            case Single single -> single.number();
            case Run run -> run.number();
        };
    }

    /** The last token at which a match may begin: one that must stand does not stand behind it. */
    int lastStart() {
        for (Elements.Element element : elements) {
            if (element instanceof Literal(int literal)) {
                for (int token = tokens.size() - 1; token >= 0; token--) {
                    if (tokens.same(token, shape, literal, ignoresCase)) {
                        return token;
                    }
                }
                return -1;
            }
        }
        return -1;
    }

    /** Whether the literals from one on, up to the next variable, stand at a token. */
    boolean literalsStand(int first, int token) {
        int at = token;
        for (int i = first; i < elements.size() && elements.get(i) instanceof Literal(int literal); i++) {
            if (at >= tokens.size() || !tokens.same(at, shape, literal, ignoresCase)) {
                return false;
            }
            at++;
        }
        return true;
    }

    /** Whether a match begins at a token. */
    boolean matches(int from) {
        begin = from;
        return (!(elements.getFirst() instanceof Single(int _, int limit, boolean _)) || operands.mayBegin(from, limit))
                && rest(0, from);
    }

    private boolean rest(int first, int token) {
        int element = first;
        int at = token;
        while (element < elements.size() && elements.get(element) instanceof Literal(int literal)) {
            if (at >= tokens.size() || !tokens.same(at, shape, literal, ignoresCase)) {
                return false;
            }
            element++;
            at++;
        }
        if (element == elements.size()) {
            end = at;
            return check.isEmpty() || check.get().holds(begin, end);
        }
        step();
        if (at > tokens.size() || failed.isPresent() && failed.get().get(state(element, at))) {
            return false;
        }
        boolean matches = switch (elements.get(element)) {
            case Single single -> single(single, element, at);
            case Run run -> run(run, element, at);
            case Literal _ -> throw new IllegalStateException();
        };
        if (!matches && failed.isPresent()) {
            failed.get().set(state(element, at));
        }
        return matches;
    }

    private void step() {
        if ((++steps & STEPS_BETWEEN) == 0 && stop.getAsBoolean()) {
            throw new ScanStoppedException();
        }
    }

    private int state(int element, int token) {
        return element * (tokens.size() + 1) + token;
    }

    private boolean single(Single variable, int element, int at) {
        int number = variable.number();
        if (bindings.has(number)) {
            return again(number, element, at);
        }
        if (variable.isHeld()) {
            int behind = operands.endOfPart(at);
            return behind > at && bound(number, at, behind, element);
        }
        Operands.Ends all = operands.ends(at, variable.limit());
        boolean isLast = element == elements.size() - 1;
        for (int i = isLast ? Math.max(0, all.size() - 1) : 0; i < all.size(); i++) {
            if (bound(number, at, all.get(i), element)) {
                return true;
            }
        }
        return false;
    }

    private boolean run(Run variable, int element, int from) {
        int number = variable.number();
        if (bindings.has(number)) {
            return again(number, element, from);
        }
        int at = from;
        while (at != Tokens.NONE) {
            if (bound(number, from, at, element)) {
                return true;
            }
            if (at >= tokens.size() || tokens.closes(at)) {
                return false;
            }
            at = tokens.behind(at);
            step();
        }
        return false;
    }

    private boolean bound(int number, int from, int to, int element) {
        if (number < 0) {
            return rest(element + 1, to);
        }
        bindings.bind(number, from, to);
        if (rest(element + 1, to)) {
            return true;
        }
        bindings.free(number);
        return false;
    }

    /** A variable that stands for something already. */
    private boolean again(int number, int element, int at) {
        int start = bindings.start(number);
        int length = bindings.end(number) - start;
        if (length > 0 && tokens.kind(at + length - 1) == 0) {
            return false;
        }
        for (int i = 0; i < length; i++) {
            if (!tokens.same(at + i, tokens, start + i, ignoresCase)) {
                return false;
            }
        }
        return rest(element + 1, at + length);
    }
}
