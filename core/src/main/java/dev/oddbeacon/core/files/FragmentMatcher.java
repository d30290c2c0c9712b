package dev.oddbeacon.core.files;

import dev.oddbeacon.core.search.Excerpt.Span;
import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.LiteralScanner;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;

/**
 * Fragments, each of which must occur, in any order, ignoring case. A fragment that does not stand there as it is may
 * still do so with other characters between its letters: all at the beginnings of words ({@code bpj} for
 * BerthPlanner.java), in few runs within the name ({@code brthpl}), or as the beginnings of its words with letters left
 * out of each ({@code brthPlnr}).
 *
 * <p>Points, per fragment: 60 the whole name or all of it before the ending, 40 the name starts with it, 30 a word of
 * the name does, 20 in the name, 12 a folder's word starts with it, 5 elsewhere; 6 if it ends the path, 4 if fragments
 * come in the order in which they were given; minus one for each eight bytes of the path.
 */
final class FragmentMatcher implements PathMatcher {
    private static final int SHORTEST_SKIPPING = 2;
    private static final int LETTERS_OF_A_WORD = 2;
    private static final int BYTES_PER_POINT = 8;
    private static final int LOOSE = 1_000; // points that letters apart are worth less

    private final byte[][] fragments;
    private final int[] slashes; // where each has its last one, or -1
    private final Optional<LiteralScanner> longest; // for the longest of them; a single letter stands nearly everywhere
    private final long mask; // of all their bytes, see PathTable
    private final List<Span> spans = new ArrayList<>();
    private boolean notes; // whether spans are wanted

    FragmentMatcher(List<String> fragments) {
        this.fragments = fragments.stream().map(CaseFolding::foldedUtf8).toArray(byte[][]::new);
        this.slashes = Arrays.stream(this.fragments)
                .mapToInt(fragment -> Path.lastSlash(fragment, 0, fragment.length))
                .toArray();
        this.longest = Arrays.stream(this.fragments)
                .max(Comparator.comparingInt(fragment -> fragment.length))
                .filter(fragment -> fragment.length > 1)
                .map(fragment -> LiteralScanner.of(new String(fragment, StandardCharsets.UTF_8), false));
        this.mask = Arrays.stream(this.fragments).mapToLong(PathTable::mask).reduce(0, (a, b) -> a | b);
    }

    @Override
    public int points(Path path) {
        int points = -path.length / BYTES_PER_POINT;
        int before = -1;
        boolean inOrder = true;
        for (int i = 0; i < fragments.length; i++) {
            int at = lastIndexOf(path, fragments[i]);
            if (at < 0) {
                return NO_MATCH;
            }
            points += literal(path, i, at);
            inOrder &= at > before;
            before = at;
        }
        return points + (inOrder && fragments.length > 1 ? 4 : 0);
    }

    @Override
    public void candidates(PathTable table, IntConsumer consumer) {
        if (longest.isEmpty()) {
            PathMatcher.super.candidates(table, consumer);
            return;
        }
        MemorySegment all = table.folded();
        for (long at = longest.get().find(all, 0, all.byteSize()); at >= 0; ) {
            int number = table.at(at);
            consumer.accept(number);
            at = longest.get().find(all, table.foldedEnd(number), all.byteSize());
        }
    }

    @Override
    public void looseCandidates(PathTable table, IntConsumer consumer) {
        for (int number = 0; number < table.count(); number++) {
            if ((table.mask(number) & mask) == mask) {
                consumer.accept(number);
            }
        }
    }

    @Override
    public int looselyPoints(Path path) {
        if (path.foldedLength != path.length) {
            return NO_MATCH;
        }
        int points = -LOOSE - path.length / BYTES_PER_POINT;
        boolean skips = false;
        for (int i = 0; i < fragments.length; i++) {
            byte[] fragment = fragments[i];
            int at = lastIndexOf(path, fragment);
            int ofFragment = at >= 0
                    ? literal(path, i, at)
                    : fragment.length >= SHORTEST_SKIPPING ? skipping(path, fragment) : NO_MATCH;
            if (ofFragment == NO_MATCH) {
                return NO_MATCH;
            }
            skips |= at < 0;
            points += ofFragment;
        }
        return skips ? points : NO_MATCH;
    }

    @Override
    public List<Span> spans(Path path) {
        spans.clear();
        notes = true;
        if (points(path) == NO_MATCH) {
            spans.clear();
            looselyPoints(path);
        }
        notes = false;
        spans.sort(Comparator.comparingInt(Span::start));
        List<Span> merged = new ArrayList<>();
        for (Span span : spans) {
            if (!merged.isEmpty() && span.start() <= merged.getLast().end()) {
                Span last = merged.removeLast();
                merged.add(new Span(last.start(), Math.max(last.end(), span.end())));
            } else {
                merged.add(span);
            }
        }
        return merged;
    }

    private static int lastIndexOf(Path path, byte[] fragment) {
        byte[] folded = path.folded;
        byte first = fragment[0];
        for (int at = path.foldedStart + path.foldedLength - fragment.length; at >= path.foldedStart; at--) {
            if (folded[at] == first && stands(folded, at, fragment)) {
                return at - path.foldedStart;
            }
        }
        return -1;
    }

    private static boolean stands(byte[] text, int at, byte[] fragment) {
        for (int i = 1; i < fragment.length; i++) {
            if (text[at + i] != fragment[i]) {
                return false;
            }
        }
        return true;
    }

    private int literal(Path path, int index, int last) {
        byte[] fragment = fragments[index];
        boolean sameLength = path.foldedLength == path.length;
        int name = sameLength ? path.name : Path.lastSlash(path.folded, path.foldedStart, path.foldedLength) + 1;
        int at = last;
        boolean startsName = name + fragment.length <= path.foldedLength
                && path.folded[path.foldedStart + name] == fragment[0]
                && stands(path.folded, path.foldedStart + name, fragment);
        int slash = slashes[index];
        if (slash >= 0 && last + slash + 1 == name) {
            startsName = true; // mooring/edit
        } else if (startsName) {
            at = name;
        }
        if (notes && sameLength) {
            spans.add(new Span(at, at + fragment.length));
        }
        int end = at + fragment.length;
        int points = end == path.foldedLength ? 6 : 0;
        boolean endsStem = end == path.foldedLength || path.folded[path.foldedStart + end] == '.' && end > name;
        if (startsName) {
            return points + (endsStem ? 60 : 40);
        }
        boolean startsWord = sameLength && path.startsWord(at);
        return points + (at >= name ? startsWord ? 30 : 20 : startsWord ? 12 : 5);
    }

    private int skipping(Path path, byte[] fragment) {
        int inName = aligned(path, fragment, path.name, true);
        if (inName == NO_MATCH) {
            inName = wordByWord(path, fragment);
        }
        return inName != NO_MATCH ? inName + 20 : path.name == 0 ? NO_MATCH : aligned(path, fragment, 0, false);
    }

    /** Letters of words of the name, each word from its first letter on, two of each at least on average. */
    private int wordByWord(Path path, byte[] fragment) {
        int runs = 0;
        int words = 0;
        int before = -2;
        int mark = spans.size();
        for (byte letter : fragment) {
            int at = before < 0 ? -1 : inSameWord(path, letter, before + 1);
            if (at < 0) {
                at = startingWord(path, letter, Math.max(path.name, before + 1));
                words++;
            }
            if (at < 0) {
                dropNotes(mark);
                return NO_MATCH;
            }
            runs += at == before + 1 ? 0 : 1;
            before = at;
            if (notes) {
                spans.add(new Span(at, at + 1));
            }
        }
        if (words < 2 || fragment.length < LETTERS_OF_A_WORD * words) {
            dropNotes(mark);
            return NO_MATCH;
        }
        return 2 * words - 4 * runs;
    }

    private static int inSameWord(Path path, byte letter, int from) {
        for (int at = from; at < path.length && !path.startsWord(at) && isLetter(path, at); at++) {
            if (path.folded[path.foldedStart + at] == letter) {
                return at;
            }
        }
        return -1;
    }

    private static boolean isLetter(Path path, int at) {
        byte letter = path.folded[path.foldedStart + at];
        return letter < 0 || Character.isLetterOrDigit(letter);
    }

    private static int startingWord(Path path, byte letter, int from) {
        for (int at = from; at < path.length; at++) {
            if (path.folded[path.foldedStart + at] == letter && path.startsWord(at)) {
                return at;
            }
        }
        return -1;
    }

    /** Letters from left to right, each where it goes on, else where a word starts, else wherever it comes next. */
    private int aligned(Path path, byte[] fragment, int from, boolean inName) {
        int runs = 0;
        int atWords = 0;
        int first = -1;
        int end = from;
        int mark = spans.size();
        for (int i = 0; i < fragment.length; ) {
            int at = next(path, fragment[i], end, i > 0);
            if (at < 0) {
                dropNotes(mark);
                return NO_MATCH;
            }
            runs++;
            atWords += path.startsWord(at) ? 1 : 0;
            first = first < 0 ? at : first;
            int start = at;
            while (i < fragment.length && at < path.length && path.folded[path.foldedStart + at] == fragment[i]) {
                i++;
                at++;
            }
            end = at;
            if (notes) {
                spans.add(new Span(start, end));
            }
        }
        boolean isAcronym = runs == atWords;
        boolean isNear = inName && path.startsWord(first) && runs <= Math.max(2, fragment.length / 3 + 1);
        if (!isAcronym && !isNear) {
            dropNotes(mark);
            return NO_MATCH;
        }
        return 10 - 4 * runs + 2 * atWords;
    }

    private void dropNotes(int mark) {
        while (spans.size() > mark) {
            spans.removeLast();
        }
    }

    private static int next(Path path, byte letter, int from, boolean mayBeAnywhere) {
        int anywhere = -1;
        for (int at = from; at < path.length; at++) {
            if (path.folded[path.foldedStart + at] == letter) {
                if (path.startsWord(at)) {
                    return at;
                }
                anywhere = anywhere < 0 ? at : anywhere;
            }
        }
        return mayBeAnywhere ? anywhere : -1;
    }
}
