package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.shape.Elements.Element.Literal;
import dev.oddbeacon.core.shape.Elements.Element.Run;
import dev.oddbeacon.core.shape.Elements.Element.Single;
import dev.oddbeacon.core.source.Analysis;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.BooleanSupplier;

/** Finds a shape in one text after another. For one thread. */
public final class ShapeFinder {
    private static final int STEPS_BETWEEN = 0xFFF;
    private static final int FIRST_PART = 1_024;

    private final ShapesByLanguage shapes;
    private final BooleanSupplier stop;
    private final int firstPart;
    private final Map<String, Tokens> tokensByLanguage = new HashMap<>();
    private final Map<String, Syntax> syntaxes = new HashMap<>();

    public ShapeFinder(ShapesByLanguage shapes, BooleanSupplier stop) {
        this(shapes, stop, FIRST_PART);
    }

    /** @param firstPart the bytes around a word that are looked at first */
    ShapeFinder(ShapesByLanguage shapes, BooleanSupplier stop, int firstPart) {
        this.shapes = shapes;
        this.stop = stop;
        this.firstPart = firstPart;
    }

    /**
     * Where the shape stands. Offsets are bytes.
     *
     * @param bound by name, what its variables stand for; without those that stand in no part that must match
     */
    public record Match(int start, int end, Map<String, Span> bound) {}

    /** A range of the text; empty for a run of no tokens. */
    public record Span(int start, int end) {}

    /** The regions that an analysis told; as long as that is valid. */
    public static RegionSource regions(Analysis analysis) {
        return new Elements.RegionsFound(analysis.found());
    }

    /**
     * All matches, ordered by where they start; at most one begins at a token. They may overlap.
     *
     * @throws ScanStoppedException once it is told to stop
     */
    public List<Match> find(byte[] utf8, Language language, RegionSource regions) {
        List<ShapesByLanguage.InLanguage> forms = shapes.in(language);
        if (forms.isEmpty()) {
            return List.of();
        }
        Tokens tokens = tokensByLanguage.computeIfAbsent(language.name(), _ -> new Tokens(language));
        Syntax syntax = syntaxes.computeIfAbsent(language.name(), _ -> new Syntax(language));
        List<Match> found = new ArrayList<>();
        for (ShapesByLanguage.InLanguage form : forms) {
            new InText(tokens, new Operands(tokens, syntax), form).collect(utf8, regions, found);
        }
        return forms.size() == 1
                ? found
                : found.stream()
                        .distinct()
                        .sorted(Comparator.comparingInt(Match::start))
                        .toList();
    }

    /** One shape in one text. */
    private final class InText {
        private final Tokens tokens;
        private final Operands operands;
        private final ShapesByLanguage.InLanguage form;
        private final int[] starts; // of what variables stand for, in tokens; negative if nothing
        private final int[] ends;
        private int steps;

        InText(Tokens tokens, Operands operands, ShapesByLanguage.InLanguage form) {
            this.tokens = tokens;
            this.operands = operands;
            this.form = form;
            this.starts = new int[shapes.shape().names().size()];
            this.ends = new int[starts.length];
            Arrays.fill(starts, -1);
        }

        void collect(byte[] utf8, RegionSource regions, List<Match> into) {
            Anchor anchor = form.anchor().orElse(null);
            int at = anchor == null ? 0 : anchor.next(utf8, 0, regions);
            if (at == Anchor.NONE) {
                return;
            }
            if (anchor == null || !anchor.leads()) {
                tokens.read(utf8, regions, stop);
                collectAll(into);
                return;
            }
            SortedMap<Integer, Match> found = new TreeMap<>();
            int length = firstPart;
            while (at != Anchor.NONE) {
                boolean isWhole = length >= utf8.length / 2;
                int from = isWhole ? 0 : startOfLine(utf8, at - length / 4);
                int to = isWhole ? utf8.length : endOfLine(utf8, at + length);
                int behind = isWhole ? to : Math.min(to, at + Math.max(1, length / 2));
                tokens.read(utf8, from, to, regions, stop);
                Walk walk = new Walk(form.code(), true);
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
            Walk walk = new Walk(form.code(), true);
            List<Elements.Element> elements = form.code().all();
            if (elements.size() > 1
                    && elements.getFirst() instanceof Single first
                    && elements.get(1) instanceof Literal) {
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
                into.add(match(token, walk.end));
            }
            Arrays.fill(starts, -1);
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
            for (int i = 0; i < starts.length; i++) {
                if (starts[i] >= 0) {
                    bound.put(
                            names.get(i),
                            starts[i] == ends[i]
                                    ? new Span(tokens.start(starts[i]), tokens.start(starts[i]))
                                    : new Span(tokens.start(starts[i]), tokens.end(ends[i] - 1)));
                }
            }
            return new Match(tokens.start(from), tokens.end(to - 1), bound);
        }

        private boolean lacks(int from, int to) {
            for (Elements without : form.without()) {
                int[] startsBefore = starts.clone();
                int[] endsBefore = ends.clone();
                Walk walk = new Walk(without, false);
                boolean found = false;
                for (int token = from; token < to && !found; token++) {
                    found = walk.matches(token) && walk.end <= to;
                    System.arraycopy(startsBefore, 0, starts, 0, starts.length);
                    System.arraycopy(endsBefore, 0, ends, 0, ends.length);
                }
                if (found) {
                    return false;
                }
            }
            return true;
        }

        /** Goes along the elements of a shape and tokens of the text. */
        private final class Walk {
            private final Tokens shape;
            private final List<Elements.Element> elements;
            private final boolean checks; // what must not stand within
            private final Optional<BitSet> failed; // by element and token; none if that depends on what was bound
            private int begin;
            private int end;

            Walk(Elements elements, boolean isWhole) {
                this.shape = elements.tokens();
                this.elements = elements.all();
                this.checks = isWhole && !form.without().isEmpty();
                this.failed = !checks && isWhole && bindOnce() ? Optional.of(new BitSet()) : Optional.empty();
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
                            if (tokens.same(token, shape, literal, shapes.ignoresCase())) {
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
                    if (at >= tokens.size() || !tokens.same(at, shape, literal, shapes.ignoresCase())) {
                        return false;
                    }
                    at++;
                }
                return true;
            }

            boolean matches(int from) {
                begin = from;
                return (!(elements.getFirst() instanceof Single(int _, int limit, boolean _))
                                || operands.mayBegin(from, limit))
                        && rest(0, from);
            }

            private boolean rest(int first, int token) {
                int element = first;
                int at = token;
                while (element < elements.size() && elements.get(element) instanceof Literal(int literal)) {
                    if (at >= tokens.size() || !tokens.same(at, shape, literal, shapes.ignoresCase())) {
                        return false;
                    }
                    element++;
                    at++;
                }
                if (element == elements.size()) {
                    end = at;
                    return !checks || lacks(begin, end);
                }
                if ((++steps & STEPS_BETWEEN) == 0 && stop.getAsBoolean()) {
                    throw new ScanStoppedException();
                }
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

            private int state(int element, int token) {
                return element * (tokens.size() + 1) + token;
            }

            private boolean single(Single variable, int element, int at) {
                int number = variable.number();
                if (number >= 0 && starts[number] >= 0) {
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
                if (number >= 0 && starts[number] >= 0) {
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
                    if ((++steps & STEPS_BETWEEN) == 0 && stop.getAsBoolean()) {
                        throw new ScanStoppedException();
                    }
                }
                return false;
            }

            private boolean bound(int number, int from, int to, int element) {
                if (number < 0) {
                    return rest(element + 1, to);
                }
                starts[number] = from;
                ends[number] = to;
                if (rest(element + 1, to)) {
                    return true;
                }
                starts[number] = -1;
                return false;
            }

            /** A variable that stands for something already. */
            private boolean again(int number, int element, int at) {
                int length = ends[number] - starts[number];
                if (length > 0 && tokens.kind(at + length - 1) == 0) {
                    return false;
                }
                for (int i = 0; i < length; i++) {
                    if (!tokens.same(at + i, tokens, starts[number] + i, shapes.ignoresCase())) {
                        return false;
                    }
                }
                return rest(element + 1, at + length);
            }
        }
    }
}
