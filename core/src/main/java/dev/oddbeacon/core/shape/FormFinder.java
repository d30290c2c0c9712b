package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.shape.Elements.Element.Literal;
import dev.oddbeacon.core.shape.Elements.Element.Single;
import dev.oddbeacon.core.shape.ShapeFinder.Match;
import dev.oddbeacon.core.shape.ShapeFinder.Span;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.BooleanSupplier;

/** One form of a shape in one text after another of a language. For one thread. */
final class FormFinder {
    private final ShapesByLanguage shapes;
    private final ShapesByLanguage.InLanguage form;
    private final Tokens tokens;
    private final Operands operands;
    private final Bindings bindings;
    private final BooleanSupplier stop;

    FormFinder(
            ShapesByLanguage shapes,
            ShapesByLanguage.InLanguage form,
            Tokens tokens,
            Operands operands,
            BooleanSupplier stop) {
        this.shapes = shapes;
        this.form = form;
        this.tokens = tokens;
        this.operands = operands;
        this.bindings = new Bindings(shapes.shape().names().size());
        this.stop = stop;
    }

    /**
     * Adds all matches, ordered by where they start.
     *
     * @param firstPart the bytes around a word that are looked at first
     */
    void collect(byte[] utf8, RegionSource regions, int firstPart, List<Match> into) {
        Anchor anchor = form.anchor().orElse(null);
        int at = anchor == null ? 0 : anchor.next(utf8, 0, regions);
        if (at == Anchor.NONE) {
            return;
        }
        if (anchor == null || !anchor.leads()) {
            tokens.read(utf8, regions, stop);
            collectAll(into);
        } else {
            collectInParts(utf8, regions, firstPart, anchor, at, into);
        }
    }

    /** Looks around one place of the anchor after another; further if what is there may depend on what is further. */
    private void collectInParts(
            byte[] utf8, RegionSource regions, int firstPart, Anchor anchor, int first, List<Match> into) {
        SortedMap<Integer, Match> found = new TreeMap<>();
        int length = firstPart;
        int at = first;
        while (at != Anchor.NONE) {
            boolean isWhole = length >= utf8.length / 2;
            int from = isWhole ? 0 : startOfLine(utf8, at - length / 4);
            int to = isWhole ? utf8.length : endOfLine(utf8, at + length);
            int behind = to == utf8.length ? to : to - length / 2;
            tokens.read(utf8, from, to, regions, stop);
            Walk walk = walk();
            boolean isTorn = tokens.touches();
            while (at != Anchor.NONE && at < behind && !isTorn) {
                List<Match> here = new ArrayList<>();
                tokens.forgetTouch();
                collectAround(at, anchor, walk, here);
                isTorn = tokens.touches();
                if (!isTorn) {
                    here.forEach(match -> found.put(match.start(), match));
                    at = anchor.next(utf8, at + 1, regions);
                }
            }
            length = isTorn ? length * 4 : length;
        }
        into.addAll(found.values());
    }

    private Walk walk() {
        return walk(form.code(), form.without().isEmpty() ? Optional.empty() : Optional.of(this::lacks), true);
    }

    private Walk walk(Elements code, Optional<Walk.Check> check, boolean isAlone) {
        return new Walk(code, tokens, operands, bindings, check, isAlone, shapes.ignoresCase(), stop);
    }

    private static int startOfLine(byte[] text, int offset) {
        int at = Math.max(0, offset);
        while (at > 0 && text[at - 1] != '\n') {
            at--;
        }
        return at;
    }

    private static int endOfLine(byte[] text, int offset) {
        int at = Math.min(text.length, offset);
        while (at < text.length && text[at - 1] != '\n') {
            at++;
        }
        return at;
    }

    private void collectAround(int offset, Anchor anchor, Walk walk, List<Match> into) {
        int token = tokens.at(offset);
        if (token == Tokens.NONE
                || !tokens.same(token, form.code().tokens(), anchor.token(), shapes.ignoresCase())
                || tokens.kind(token - anchor.fromFirst()) == 0) {
            return;
        }
        int literal = token - anchor.fromFirst();
        if (!(form.code().all().getFirst() instanceof Single first)) {
            collect(literal, walk, into);
        } else if (walk.literalsStand(1, literal)) {
            for (int start = operands.earliest(literal, first.limit()); start < literal; start++) {
                collect(start, walk, into);
            }
        }
    }

    private void collectAll(List<Match> into) {
        Walk walk = walk();
        List<Elements.Element> elements = form.code().all();
        if (elements.size() > 1 && elements.getFirst() instanceof Single first && elements.get(1) instanceof Literal) {
            collectBefore(first, walk, into);
            return;
        }
        int last = walk.lastStart();
        for (int token = 0; token <= last; token++) {
            collect(token, walk, into);
        }
    }

    private void collect(int token, Walk walk, List<Match> into) {
        if (walk.matches(token)) {
            into.add(match(token, walk.end()));
        }
        bindings.clear();
    }

    /** Matches that begin with an expression: only where what follows it stands, the tokens before are tried. */
    private void collectBefore(Single first, Walk walk, List<Match> into) {
        BitSet begin = new BitSet();
        for (int token = 1; token < tokens.size(); token++) {
            if (walk.literalsStand(1, token)) {
                begin.set(operands.earliest(token, first.limit()), token);
            }
        }
        for (int token = begin.nextSetBit(0); token >= 0; token = begin.nextSetBit(token + 1)) {
            collect(token, walk, into);
        }
    }

    private Match match(int from, int to) {
        Map<String, Span> bound = new HashMap<>();
        List<String> names = shapes.shape().names();
        for (int i = 0; i < bindings.size(); i++) {
            if (bindings.has(i)) {
                int start = tokens.start(bindings.start(i));
                boolean isEmpty = bindings.start(i) == bindings.end(i);
                bound.put(names.get(i), new Span(start, isEmpty ? start : tokens.end(bindings.end(i) - 1)));
            }
        }
        return new Match(tokens.start(from), tokens.end(to - 1), bound);
    }

    /** Whether nothing stands within a range of tokens that must not. */
    private boolean lacks(int from, int to) {
        for (Elements without : form.without()) {
            Bindings before = bindings.copy();
            Walk walk = walk(without, Optional.empty(), false);
            boolean found = false;
            for (int token = from; token < to && !found; token++) {
                found = walk.matches(token) && walk.end() <= to;
                bindings.take(before);
            }
            if (found) {
                return false;
            }
        }
        return true;
    }
}
