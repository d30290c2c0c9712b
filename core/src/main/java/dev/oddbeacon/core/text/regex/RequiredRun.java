package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.ByteRun;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Successive bytes that stand on every line with a match. Looking for them, many bytes at a time, is several times
 * faster than following the automaton, which then sees only the lines that have them.
 *
 * @param run the bytes
 * @param startsAtFeed whether the first of them is the line feed before the line
 * @param endsAtFeed whether the last of them is the line feed that ends the line
 */
record RequiredRun(ByteRun run, boolean startsAtFeed, boolean endsAtFeed) {
    private static final int LONGEST = 2 * ByteRun.LONGEST;
    private static final BitSet FEED = bytes('\n', '\n');

    /**
     * What is known of the bytes of a part of the expression.
     *
     * @param exact the bytes, if their number is fixed and not large
     * @param prefix the first bytes of each match
     * @param suffix the last bytes of each match
     * @param best the rarest bytes that each match holds
     */
    private record Known(Optional<List<BitSet>> exact, List<BitSet> prefix, List<BitSet> suffix, List<BitSet> best) {
        static final Known NOTHING = new Known(Optional.empty(), List.of(), List.of(), List.of());

        static Known exactly(List<BitSet> bytes) {
            return new Known(Optional.of(bytes), bytes, bytes, bytes);
        }

        Known then(Known next) {
            List<BitSet> joined = concat(suffix, next.prefix);
            if (exact.isPresent() && next.exact.isPresent() && joined.size() <= LONGEST) {
                return exactly(joined);
            }
            List<BitSet> first = exact.isPresent() ? first(joined) : prefix;
            List<BitSet> last = next.exact.isPresent() ? last(joined) : next.suffix;
            return new Known(Optional.empty(), first, last, rarer(rarer(best, next.best), joined));
        }
    }

    /** The bytes that are cheapest to look for; empty if looking at all lines is as fast. */
    static Optional<RequiredRun> of(Regex regex) {
        List<Regex> parts = regex instanceof Regex.Concat concat ? concat.parts() : List.of(regex);
        boolean atStart = !parts.isEmpty() && isEdge(parts.getFirst(), Regex.EdgeKind.LINE_START);
        boolean atEnd = parts.size() > (atStart ? 1 : 0) && isEdge(parts.getLast(), Regex.EdgeKind.LINE_END);
        Known known = concat(parts.subList(atStart ? 1 : 0, parts.size() - (atEnd ? 1 : 0)));
        List<BitSet> feedBefore = atStart ? List.of(FEED) : List.of();
        List<BitSet> feedAfter = atEnd ? List.of(FEED) : List.of();
        List<BitSet> wholeLine = known.exact
                .map(bytes -> concat(concat(feedBefore, bytes), feedAfter))
                .orElse(List.of());
        List<BitSet> rarest = rarer(
                rarer(known.best, wholeLine), rarer(concat(feedBefore, known.prefix), concat(known.suffix, feedAfter)));
        if (rarest.stream().allMatch(FEED::equals)) {
            return Optional.empty(); // all lines have that
        }
        return ByteRun.bestOf(rarest)
                .map(part -> new RequiredRun(
                        part.run(),
                        part.start() == 0 && rarest.getFirst() == FEED,
                        part.start() + part.run().length() == rarest.size() && rarest.getLast() == FEED))
                .filter(required ->
                        required.run.length() > (required.startsAtFeed ? 1 : 0) + (required.endsAtFeed ? 1 : 0));
    }

    private static boolean isEdge(Regex regex, Regex.EdgeKind kind) {
        return regex instanceof Regex.Edge edge && edge.kind() == kind;
    }

    private static Known known(Regex regex) {
        return switch (regex) {
            case Regex.Chars chars -> chars(chars.set());
            case Regex.Edge _ -> Known.exactly(List.of());
            case Regex.Concat concat -> concat(concat.parts());
            case Regex.Alternate alternate ->
                alternate.parts().stream()
                        .map(RequiredRun::known)
                        .reduce(RequiredRun::either)
                        .orElse(Known.NOTHING);
            case Regex.Repeat repeat -> repeat(repeat);
        };
    }

    /** Beyond ASCII a character is several bytes. */
    private static Known chars(CharSet set) {
        BitSet ascii = new BitSet();
        for (int i = 0; i < set.ranges().length; i += 2) {
            ascii.set(Math.min(set.ranges()[i], 0x80), Math.min(set.ranges()[i + 1] + 1, 0x80));
        }
        ascii.clear('\n'); // no line holds one
        if (set.isEmpty() || set.ranges()[set.ranges().length - 1] < 0x80) {
            return Known.exactly(List.of(ascii));
        }
        BitSet atEitherEnd = bytes(0x80, 0xFF);
        atEitherEnd.or(ascii);
        return new Known(Optional.empty(), List.of(atEitherEnd), List.of(atEitherEnd), List.of(atEitherEnd));
    }

    private static BitSet bytes(int low, int high) {
        BitSet bytes = new BitSet();
        bytes.set(low, high + 1);
        return bytes;
    }

    private static Known concat(List<Regex> parts) {
        return parts.stream().map(RequiredRun::known).reduce(Known.exactly(List.of()), Known::then);
    }

    private static Known either(Known a, Known b) {
        if (a.exact.isPresent() && b.exact.isPresent() && a.prefix.size() == b.prefix.size()) {
            return Known.exactly(union(a.prefix, b.prefix));
        }
        List<BitSet> suffix = union(a.suffix.reversed(), b.suffix.reversed()).reversed();
        return new Known(Optional.empty(), union(a.prefix, b.prefix), suffix, union(a.best, b.best));
    }

    private static Known repeat(Regex.Repeat repeat) {
        if (repeat.min() == 0) {
            return repeat.max() == 0 ? Known.exactly(List.of()) : Known.NOTHING;
        }
        Known once = known(repeat.part());
        int times = Math.min(repeat.min(), LONGEST);
        if (repeat.part() instanceof Regex.Chars
                && once.exact.isEmpty()) { // each character is one byte or several of the same set
            List<BitSet> bytes = Collections.nCopies(times, once.prefix.getFirst());
            return new Known(Optional.empty(), bytes, bytes, bytes);
        }
        Known all = once;
        for (int i = 1; i < times; i++) {
            all = all.then(once);
        }
        boolean isFixed = repeat.min() == repeat.max() && repeat.min() <= LONGEST;
        return isFixed ? all : new Known(Optional.empty(), all.prefix, all.suffix, all.best);
    }

    /** Byte by byte, as far as both go. */
    private static List<BitSet> union(List<BitSet> a, List<BitSet> b) {
        List<BitSet> result = new ArrayList<>();
        for (int i = 0; i < Math.min(a.size(), b.size()); i++) {
            BitSet both = (BitSet) a.get(i).clone();
            both.or(b.get(i));
            result.add(both);
        }
        return result;
    }

    private static List<BitSet> concat(List<BitSet> a, List<BitSet> b) {
        return Stream.concat(a.stream(), b.stream()).toList();
    }

    private static List<BitSet> first(List<BitSet> bytes) {
        return bytes.subList(0, Math.min(LONGEST, bytes.size()));
    }

    private static List<BitSet> last(List<BitSet> bytes) {
        return bytes.subList(Math.max(0, bytes.size() - LONGEST), bytes.size());
    }

    private static List<BitSet> rarer(List<BitSet> a, List<BitSet> b) {
        return rate(a) <= rate(b) ? a : b;
    }

    private static double rate(List<BitSet> bytes) {
        return bytes.stream().mapToDouble(ByteRun::share).reduce(1, (x, y) -> x * y);
    }
}
