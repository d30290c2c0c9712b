package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.Excerpt.Enclosing;
import dev.oddbeacon.core.search.Excerpt.InRegion;
import dev.oddbeacon.core.search.Excerpt.Line;
import dev.oddbeacon.core.search.Excerpt.Span;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.RegionCursor;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;

/** Turns the hits of a file into excerpts: hits with their context lines, merged where they touch. */
public final class Excerpts {
    /** Longer lines are cut around their matches. In UTF-16 units. */
    static final int LONGEST_LINE = 2_000;

    private static final int LEAD = 200;
    private static final long NEAR = 1 << 14;
    /** More matches than this on one line are not looked for: its shown part cannot hold them. */
    private static final int MOST_MATCHES = LONGEST_LINE;

    private final SegmentReader segment;
    private final int blob;
    private final int context;
    private final boolean isAnalysed;
    private final Optional<RegionCursor> regions;
    private int declaredPiece = -1;
    private List<Declared> declared = List.of();
    private long numberedStart = Long.MAX_VALUE; // of the line whose number was asked for last
    private int lastNumber;

    /** @param tellsRegions whether lines say what of them is not code */
    public Excerpts(SegmentReader segment, int blob, int context, boolean tellsRegions) {
        this.segment = segment;
        this.blob = blob;
        this.context = context;
        this.isAnalysed = segment.language(blob).isPresent();
        this.regions = tellsRegions && isAnalysed ? Optional.of(new RegionCursor(segment)) : Optional.empty();
        regions.ifPresent(cursor -> cursor.begin(blob));
    }

    /** The matches on one line, as offsets in content, ascending; they do not overlap. */
    private record HitLine(long start, long end, List<long[]> matches) {
        void add(long from, long until) {
            if (!matches.isEmpty() && from < matches.getLast()[1]) {
                matches.getLast()[1] = Math.max(matches.getLast()[1], until);
            } else {
                matches.add(new long[] {from, until});
            }
        }
    }

    /**
     * The excerpts of some of the hits.
     *
     * @param skip hits to pass over
     * @param most hits to show
     */
    List<Excerpt> of(FileMatches matches, int skip, int most) {
        List<HitLine> hits = hitLines(matches, skip + most);
        return excerpts(hits.subList(Math.min(skip, hits.size()), Math.min(skip + most, hits.size())));
    }

    /** The line of a match that stays on it. */
    public Line lineOf(long from, long until) {
        long start = Lines.start(segment.content(), from, segment.start(blob));
        long end = Lines.end(segment.content(), from, segment.end(blob));
        return line(start, end, List.of(new long[] {from, Math.min(end, until)}));
    }

    private List<HitLine> hitLines(FileMatches matches, int most) {
        TreeMap<Long, HitLine> lines = new TreeMap<>();
        while (matches.next()) {
            long first = startOfLine(lines, matches.start());
            if (lines.size() >= most && !lines.containsKey(first)) {
                break;
            }
            long lastEnd =
                    Lines.end(segment.content(), Math.max(matches.start(), matches.end() - 1), segment.end(blob));
            for (long start = first; start <= lastEnd; ) {
                long end = Lines.end(segment.content(), start, lastEnd);
                lines.computeIfAbsent(start, begin -> new HitLine(begin, end, new ArrayList<>()))
                        .add(Math.max(start, matches.start()), Math.min(end, matches.end()));
                start = end + 1;
            }
            if (lines.lastEntry().getValue().matches.size() >= MOST_MATCHES) {
                matches.skipLine();
            }
        }
        return new ArrayList<>(lines.values());
    }

    /** On a line of a megabyte with many matches, going back to its start for each would never end. */
    private long startOfLine(NavigableMap<Long, HitLine> lines, long offset) {
        Map.Entry<Long, HitLine> before = lines.floorEntry(offset);
        return before != null && offset <= before.getValue().end
                ? before.getKey()
                : Lines.start(segment.content(), offset, segment.start(blob));
    }

    private List<Excerpt> excerpts(List<HitLine> hits) {
        List<Excerpt> excerpts = new ArrayList<>();
        TreeMap<Long, Line> open = new TreeMap<>(); // by start of the line
        long openEnd = -1; // end of the last line in it
        Optional<Enclosing> enclosing = Optional.empty();
        for (HitLine hit : hits) {
            List<long[]> around = new ArrayList<>();
            before(hit.start).forEach(around::add);
            around.add(new long[] {hit.start, hit.end});
            after(hit.end).forEach(around::add);
            if (!open.isEmpty() && around.getFirst()[0] > openEnd + 1) {
                excerpts.add(new Excerpt(List.copyOf(open.values()), enclosing));
                open = new TreeMap<>();
            }
            if (open.isEmpty()) {
                enclosing = enclosing(hit);
            }
            for (long[] line : around) {
                if (line[0] == hit.start) {
                    open.put(line[0], line(line[0], line[1], hit.matches));
                } else if (!open.containsKey(line[0])) {
                    open.put(line[0], line(line[0], line[1], List.of()));
                }
            }
            openEnd = Math.max(openEnd, around.getLast()[1]);
        }
        if (!open.isEmpty()) {
            excerpts.add(new Excerpt(List.copyOf(open.values()), enclosing));
        }
        return excerpts;
    }

    /** The declaration around a hit, but for what the hit itself declares. */
    private Optional<Enclosing> enclosing(HitLine hit) {
        if (!isAnalysed) {
            return Optional.empty();
        }
        long at = hit.matches.getFirst()[0];
        Optional<Declared> around = segment.enclosing(blob, at);
        while (around.isPresent()
                && around.get().nameStart() >= hit.start
                && around.get().nameStart() <= hit.end) {
            around = around.get().parent() < 0
                    ? Optional.empty()
                    : Optional.of(segment.declaration(blob, around.get().parent()));
        }
        return around.map(found -> new Enclosing(
                segment.name(found),
                found.kind(),
                segment.container(blob, found),
                segment.lineNumber(blob, found.nameStart())));
    }

    /** Whether a match touches the name of a declaration. */
    private boolean declares(List<long[]> matches) {
        if (!isAnalysed) {
            return false;
        }
        for (long[] match : matches) {
            for (int piece = segment.pieceAt(blob, match[0]);
                    piece < segment.firstPiece(blob + 1) && segment.pieceStart(piece) < match[1];
                    piece++) {
                for (Declared declared : declarations(piece)) {
                    if (declared.nameStart() < match[1]
                            && declared.nameEnd() > match[0]
                            && !declared.kind().isUse()) {
                        return true;
                    }
                }
            }
        }
        return false;
    }

    /** The declarations of the piece that was asked for last are kept. */
    private List<Declared> declarations(int piece) {
        if (piece != declaredPiece) {
            declared = segment.declarations(piece);
            declaredPiece = piece;
        }
        return declared;
    }

    private List<long[]> before(long start) {
        long low = segment.start(blob);
        List<long[]> lines = new ArrayList<>();
        long next = start;
        while (lines.size() < context && next > low) {
            long previous = Lines.start(segment.content(), next - 1, low);
            lines.addFirst(new long[] {previous, next - 1});
            next = previous;
        }
        return lines;
    }

    private List<long[]> after(long end) {
        long high = segment.end(blob);
        List<long[]> lines = new ArrayList<>();
        long next = end + 1;
        while (lines.size() < context && next < high) {
            long feed = Lines.end(segment.content(), next, high);
            lines.add(new long[] {next, feed});
            next = feed + 1;
        }
        return lines;
    }

    private Line line(long start, long end, List<long[]> matches) {
        String text = Utf8.string(segment.content(), start, end);
        List<Span> spans = new ArrayList<>();
        long at = start;
        int unit = 0;
        for (long[] match : matches) {
            unit += units(at, match[0]);
            int length = units(match[0], match[1]);
            spans.add(new Span(unit, unit + length));
            unit += length;
            at = match[1];
        }
        return cut(
                number(start),
                text,
                spans,
                declares(matches),
                text.length() <= LONGEST_LINE ? regions(start, end) : List.of());
    }

    /** A line, or the part of a very long one around its matches. */
    public static Line cut(int number, String text, List<Span> spans, boolean declares, List<InRegion> regions) {
        if (text.length() <= LONGEST_LINE) {
            return new Line(number, text, 0, List.copyOf(spans), declares, regions);
        }
        int from = spans.isEmpty()
                ? 0
                : boundary(text, Math.max(0, Math.min(spans.getFirst().start() - LEAD, text.length() - LONGEST_LINE)));
        int until = boundary(text, Math.min(text.length(), from + LONGEST_LINE));
        List<Span> shown = spans.stream()
                .filter(span -> span.start() < until || span == spans.getFirst())
                .map(span -> new Span(span.start(), Math.min(span.end(), until)))
                .toList();
        return new Line(number, text.substring(from, until), from, shown, declares, List.of());
    }

    private List<InRegion> regions(long start, long end) {
        if (regions.isEmpty()) {
            return List.of();
        }
        List<InRegion> found = new ArrayList<>();
        int unit = 0;
        for (long at = start; at < end; ) {
            Region region = regions.get().region(at);
            long until = Math.min(end, regions.get().end());
            int length = units(at, until);
            if (region != Region.CODE) {
                found.add(new InRegion(unit, unit + length, region));
            }
            unit += length;
            at = until;
        }
        return List.copyOf(found);
    }

    /** The number of the line that starts at an offset: counted on from the last that was asked for, if it is near. */
    private int number(long start) {
        boolean isNear = start >= numberedStart && start - numberedStart < NEAR;
        lastNumber = isNear
                ? lastNumber + Lines.feeds(segment.content(), numberedStart, start)
                : segment.lineNumber(blob, start);
        numberedStart = start;
        return lastNumber;
    }

    private int units(long start, long end) {
        return start == end ? 0 : Utf8.string(segment.content(), start, end).length();
    }

    private static int boundary(String text, int index) {
        return index > 0 && index < text.length() && Character.isLowSurrogate(text.charAt(index)) ? index - 1 : index;
    }
}
