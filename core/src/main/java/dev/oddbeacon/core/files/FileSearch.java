package dev.oddbeacon.core.files;

import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Dividable;
import dev.oddbeacon.core.search.Excerpt.Span;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.snapshot.NamedFile;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.text.Split;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * Searches paths of files, or of the folders that hold them. Skipped files are found as well.
 *
 * @param text what to look for; empty for everything
 * @param reading how it is read
 * @param from how many of the answer's files are passed over
 * @param limit most files on the page
 */
public record FileSearch(
        String text,
        PathReading reading,
        CaseMode caseMode,
        Scope scope,
        Kind kind,
        Sizes sizes,
        Sorting sorting,
        int from,
        int limit)
        implements Dividable<FileSearch.Answer, FilesFound> {
    /** The way the text is read. */
    public enum PathReading {
        /** Each fragment occurs, in any order; see {@link FragmentMatcher}. */
        FRAGMENTS,
        /** The whole text, literally, anywhere in the path. */
        PLAIN,
        REGEX,
        /** A glob for the whole path, or for the name if it has no slash. */
        GLOB,
        /** Words and clauses, which are about the path. */
        EXPRESSION
    }

    /** Whether files or folders are searched. */
    public enum Kind {
        FILE,
        FOLDER
    }

    /** The order of the files. */
    public enum Order {
        /** By how well the path fits; without a text, by path. */
        RELEVANCE,
        PATH,
        /** By the last part of the path. */
        NAME,
        TYPE,
        /** The most lines first. */
        LINES,
        /** The largest first. */
        SIZE,
        /** By their last change, the latest first. */
        RECENT
    }

    /**
     * How the answer is ordered.
     *
     * @param reversed the other way round
     * @param first files, as repository/path, that come before all others where the order is by relevance: those opened
     * lately, say
     * @param near what is close to this file comes before all else where the order is by relevance
     */
    public record Sorting(Order order, boolean reversed, List<String> first, Optional<FileInHand> near) {
        public Sorting(Order order, boolean reversed, List<String> first) {
            this(order, reversed, first, Optional.empty());
        }

        public static Sorting by(Order order) {
            return new Sorting(order, false, List.of());
        }
    }

    /** Bytes from and to, both included. */
    public record Sizes(long from, long to) {
        public static final Sizes ANY = new Sizes(0, Long.MAX_VALUE);

        boolean hold(long bytes) {
            return bytes >= from && bytes <= to;
        }
    }

    /**
     * @param file its number; of a folder, that of the first file below it
     * @param matches in the path, ascending, in UTF-16 units
     */
    public record Found(int branchNumber, int file, String path, Kind kind, List<Span> matches) {}

    /** Files by what they have in common, the most first; {@link Share#hits} says nothing. */
    public record Facets(List<Share> repository, List<Share> type, List<Share> trait) {}

    /**
     * @param files how many were found in all, in so many repositories
     * @param exact whether there are no others: time may end before all is looked at that is asked for
     * @param stopped why not all paths were looked at
     * @param next how many to pass over for the next page
     */
    public record Answer(
            int files,
            int repositories,
            boolean exact,
            Optional<Stop> stopped,
            Facets facets,
            List<Found> page,
            Optional<Integer> next) {}

    /** Paths that only have the letters, with others between, are told when fewer than so many have the fragments. */
    private static final int FEW = 5;

    private static final int PORTION = 1024;
    private static final int FIRST = -1 << 30; // points before all others
    private static final int NEAR_BITS = 17;
    private static final int MOST_POINTS = 1 << 15;
    private static final int TEST_POINTS = 6;
    private static final int FOREIGN_POINTS = 15;

    /**
     * What is asked as far as it is a query: the scope, and the text unless it is fragments or a glob.
     *
     * @throws InvalidQueryException if the text cannot be read so
     */
    public Query query() {
        if (!isQuery()) {
            return scope.query();
        }
        Query asked = new TextQuery(text, Reading.valueOf(reading.name()), caseMode, false)
                .understand(false)
                .query();
        return Query.and(List.of(
                scope.query(),
                Query.besides(
                        asked, clause -> clause instanceof TextClause.OfCode || clause instanceof Query.InRegion)));
    }

    /** Whether the text is a query of clauses, rather than fragments or a glob. */
    private boolean isQuery() {
        return !text.isBlank() && reading != PathReading.FRAGMENTS && reading != PathReading.GLOB;
    }

    private List<String> fragments() {
        return Split.words(text).stream()
                .filter(fragment -> !fragment.isEmpty())
                .toList();
    }

    @Override
    public boolean canBeDivided() {
        return query().isOfEachRepository() && (long) from + limit <= MOST_TOLD;
    }

    @Override
    public boolean asksOfPasts() {
        return sorting.order == Order.RECENT || query().asksOfPasts();
    }

    @Override
    public Optional<Stop> stopped(Answer answer) {
        return answer.stopped;
    }

    @Override
    public boolean isIn(FilesFound part, View view) {
        return part.isIn(view);
    }

    @Override
    public Answer run(SearchContext context) {
        Run run = new Run(context, settled(context));
        run.search(false);
        if (run.found.count < FEW && !text.isBlank()) {
            run.search(true);
        }
        return run.answer(run.counts(List.of()));
    }

    @Override
    public FilesFound find(SearchContext context) {
        LineSearch.Settled settled = settled(context);
        Run close = new Run(context, settled);
        close.search(false);
        if (close.found.count >= FEW || text.isBlank()) {
            return new FilesFound(close.told(), FilesFound.Told.NONE);
        }
        Run loose = new Run(context, settled);
        loose.search(true);
        return new FilesFound(close.told(), loose.told());
    }

    @Override
    public Answer answer(List<FilesFound> parts, SearchContext context) {
        FilesFound.Told told =
                FilesFound.merged(parts.stream().map(FilesFound::close).toList());
        Run run = new Run(context, new LineSearch.Settled(CompiledQuery.of(query(), CaseMode.AUTO), true));
        run.take(told.first());
        if (told.files() < FEW && !text.isBlank()) {
            FilesFound.Told loose =
                    FilesFound.merged(parts.stream().map(FilesFound::loose).toList());
            run.take(loose.first());
            told = FilesFound.merged(List.of(told, loose));
        }
        return run.answer(told);
    }

    private LineSearch.Settled settled(SearchContext context) {
        return LineSearch.settle(CompiledQuery.of(query(), CaseMode.AUTO), context);
    }

    private final class Run {
        private final View view;
        private final Limits limits;
        private final Limits.Files scoped;
        private final PathMatcher matcher;
        private final PathMatcher.Path path = new PathMatcher.Path();
        private final boolean isQuery = isQuery();
        private final boolean ranks = sorting.order == Order.RELEVANCE && !text.isBlank();
        private final Places found = new Places();
        private final boolean isWhole;
        private final Budget budget;
        private int looked; // paths
        private boolean isOver;

        Run(SearchContext context, LineSearch.Settled settled) {
            this.view = context.view();
            this.budget = context.budget();
            this.isWhole = settled.isWhole();
            this.limits = context.limits(settled.query());
            this.scoped = limits.files();
            this.matcher = isQuery()
                    ? new QueryMatcher(settled.query(), scoped)
                    : reading == PathReading.GLOB && !text.isBlank()
                            ? new GlobMatcher(text.strip())
                            : new FragmentMatcher(fragments());
        }

        /** @param told of what was found; only what may stand on the page need be in the places */
        Answer answer(FilesFound.Told told) {
            long[] sorted = sorted();
            List<Found> page = new ArrayList<>();
            for (int i = from; i < Math.min((long) from + limit, sorted.length); i++) {
                page.add(found((int) sorted[i]));
            }
            boolean isLast = (long) from + limit >= told.files();
            return new Answer(
                    told.files(),
                    told.repository().size(),
                    told.exact(),
                    told.stopped(),
                    told.facets(kind),
                    page,
                    isLast ? Optional.empty() : Optional.of(from + limit));
        }

        /** What was found, to be put together with what others found. */
        FilesFound.Told told() {
            long[] sorted = sorted();
            return counts(Arrays.stream(sorted)
                    .limit((long) from + limit)
                    .mapToObj(key -> at((int) key))
                    .toList());
        }

        private FilesFound.At at(int index) {
            return new FilesFound.At(
                    NamedFile.of(view, found.places[index]), found.points[index], found.lengths[index]);
        }

        FilesFound.Told counts(List<FilesFound.At> first) {
            Counter counter = new Counter();
            Optional<Stop> stopped = budget.stop();
            return new FilesFound.Told(
                    found.count,
                    isWhole && stopped.isEmpty(),
                    stopped,
                    counter.repositories(),
                    counter.types(),
                    counter.traits(),
                    first);
        }

        /** Takes what parts have found, in the order in which all would be found here. */
        void take(List<FilesFound.At> files) {
            files.stream()
                    .map(at -> new Taken(at.file().place(view).orElseThrow(), at))
                    .sorted(Comparator.comparingLong(Taken::place).thenComparingInt(taken -> taken.at.length()))
                    .forEach(taken -> found.add(
                            (int) (taken.place >>> 32), (int) taken.place, taken.at.points(), taken.at.length()));
        }

        private record Taken(long place, FilesFound.At at) {}

        /** @param loosely whether letters may be apart */
        void search(boolean loosely) {
            for (int branchNumber = 0; branchNumber < view.branches().size() && !isOver; branchNumber++) {
                if (!limits.holdsBranch(branchNumber)) {
                    continue;
                }
                int of = branchNumber;
                SnapshotReader snapshot = view.snapshot(branchNumber);
                PathTable table = PathTable.of(snapshot);
                if (kind == Kind.FOLDER) {
                    folders(branchNumber, table, loosely);
                } else if (loosely) {
                    matcher.looseCandidates(table, file -> file(of, snapshot, table, file, true));
                } else {
                    matcher.candidates(table, file -> file(of, snapshot, table, file, false));
                }
            }
        }

        /** Whether there is no more time; looked up once for many files. */
        private boolean isOver() {
            if (++looked % PORTION == 0) {
                isOver = budget.isOver();
            }
            return isOver;
        }

        private int points(boolean loosely) {
            return loosely ? matcher.looselyPoints(path) : matcher.points(path);
        }

        private void file(int branchNumber, SnapshotReader snapshot, PathTable table, int file, boolean loosely) {
            if (isOver()) {
                return;
            }
            table.show(file, path);
            if (!sizes.hold(snapshot.bytes(file)) || isQuery && !scoped.hold(branchNumber, file)) {
                return; // a query may ask about this file's limits
            }
            int points = points(loosely);
            if (points != PathMatcher.NO_MATCH && (isQuery || scoped.hold(branchNumber, file))) {
                int traits = snapshot.traits(file);
                int lost = ((traits & Traits.TESTS) != 0 ? TEST_POINTS : 0)
                        + ((traits & Traits.FOREIGN) != 0 ? FOREIGN_POINTS : 0);
                found.add(branchNumber, file, points - lost, path.length);
            }
        }

        /** The folders of files that are in the scope, each with the first of them. */
        private void folders(int branchNumber, PathTable table, boolean loosely) {
            PathMatcher.Path whole = new PathMatcher.Path();
            PathMatcher.Path before = new PathMatcher.Path();
            List<Integer> told = new ArrayList<>(); // lengths of the folders of the file before that were told
            for (int file = 0; file < table.count() && !isOver(); file++) {
                if (!sizes.hold(view.snapshot(branchNumber).bytes(file)) || !scoped.hold(branchNumber, file)) {
                    continue;
                }
                table.show(file, whole);
                int common = Arrays.mismatch(
                        before.bytes,
                        before.start,
                        before.start + before.length,
                        whole.bytes,
                        whole.start,
                        whole.start + whole.length);
                told.removeIf(folder -> folder >= common);
                table.show(file, before);
                for (int end = 0; end < whole.length; end++) {
                    if (whole.bytes[whole.start + end] == '/' && !told.contains(end)) {
                        told.add(end);
                        whole.folder(end, path);
                        int points = points(loosely);
                        if (points != PathMatcher.NO_MATCH) {
                            found.add(branchNumber, file, points, end);
                        }
                    }
                }
            }
        }

        /** Indexes into the places, in the low half, in the order of the answer. */
        private long[] sorted() {
            long[] keys = new long[found.count];
            Map<Long, Integer> first = first();
            int[] texts = sorting.order == Order.NAME || sorting.order == Order.TYPE ? orderOfTexts() : new int[0];
            for (int i = 0; i < keys.length; i++) {
                int branchNumber = (int) (found.places[i] >>> 32);
                int file = (int) found.places[i];
                long key = switch (sorting.order) {
                    case RELEVANCE -> {
                        int likely = first.containsKey(found.places[i])
                                ? FIRST + first.get(found.places[i])
                                : ranks ? -found.points[i] : 0;
                        yield sorting.near
                                .map(hand -> nearKey(hand.distance(view, branchNumber, file), likely))
                                .orElse((long) likely);
                    }
                    case PATH -> 0;
                    case NAME, TYPE -> texts[i];
                    case LINES -> -view.snapshot(branchNumber).lines(file);
                    case SIZE ->
                        -Math.min(Integer.MAX_VALUE, view.snapshot(branchNumber).bytes(file) >>> 4);
                    case RECENT -> -view.lastChanges(branchNumber).seconds(file) / 2;
                };
                keys[i] = key << 32 | i;
            }
            Arrays.sort(keys);
            return sorting.reversed ? reversed(keys) : keys;
        }

        /** The closest first; of those equally close, the likeliest. */
        private static long nearKey(int distance, int likely) {
            return ((long) distance << NEAR_BITS) + Math.clamp(likely, -MOST_POINTS, MOST_POINTS);
        }

        private static long[] reversed(long[] keys) {
            long[] reversed = new long[keys.length];
            for (int i = 0; i < keys.length; i++) {
                reversed[i] = keys[keys.length - 1 - i];
            }
            return reversed;
        }

        /** The places of the files that come first, each with its turn. */
        private Map<Long, Integer> first() {
            Map<Long, Integer> turns = new HashMap<>();
            if (sorting.order != Order.RELEVANCE || sorting.first.isEmpty() || kind == Kind.FOLDER) {
                return turns;
            }
            for (int branchNumber = 0; branchNumber < view.branches().size(); branchNumber++) {
                String start = view.branch(branchNumber).repository() + "/";
                for (int turn = 0; turn < sorting.first.size(); turn++) {
                    String file = sorting.first.get(turn);
                    if (limits.holdsBranch(branchNumber) && file.startsWith(start)) {
                        OptionalInt number = view.snapshot(branchNumber).find(file.substring(start.length()));
                        if (number.isPresent()) {
                            turns.put((long) branchNumber << 32 | number.getAsInt(), turn);
                        }
                    }
                }
            }
            return turns;
        }

        /** For each file found, the alphabetical rank of its name or type. */
        private int[] orderOfTexts() {
            String[] texts = new String[found.count];
            PathMatcher.Path whole = new PathMatcher.Path();
            for (int i = 0; i < texts.length; i++) {
                SnapshotReader snapshot = view.snapshot((int) (found.places[i] >>> 32));
                PathTable.of(snapshot).show((int) found.places[i], whole);
                String shown = new String(whole.bytes, whole.start, found.lengths[i], StandardCharsets.UTF_8);
                texts[i] = sorting.order == Order.NAME
                        ? shown.substring(shown.lastIndexOf('/') + 1).toLowerCase(Locale.ROOT)
                        : kind == Kind.FOLDER ? "" : snapshot.type((int) found.places[i]);
            }
            String[] distinct = Arrays.stream(texts).distinct().sorted().toArray(String[]::new);
            return Arrays.stream(texts)
                    .mapToInt(text -> Arrays.binarySearch(distinct, text))
                    .toArray();
        }

        private Found found(int index) {
            int branchNumber = (int) (found.places[index] >>> 32);
            int file = (int) found.places[index];
            PathMatcher.Path whole = new PathMatcher.Path();
            PathTable.of(view.snapshot(branchNumber)).show(file, whole);
            whole.folder(found.lengths[index], path); // all of it, if it is no folder
            byte[] bytes = Arrays.copyOfRange(path.bytes, path.start, path.start + path.length);
            List<Span> spans = matcher.spans(path).stream()
                    .map(span -> new Span(units(bytes, span.start()), units(bytes, span.end())))
                    .toList();
            return new Found(branchNumber, file, new String(bytes, StandardCharsets.UTF_8), kind, spans);
        }

        private static int units(byte[] bytes, int end) {
            return new String(bytes, 0, end, StandardCharsets.UTF_8).length();
        }

        /** Adds up what was found. */
        private final class Counter {
            private final Map<String, int[]> repositories = new HashMap<>();
            private final Map<String, int[]> types = new HashMap<>();
            private final int[] traits = new int[Trait.values().length];

            Counter() {
                for (int from = 0; from < found.count; ) {
                    from = count((int) (found.places[from] >>> 32), from);
                }
            }

            /** Files of one branch that follow each other. */
            private int count(int branchNumber, int start) {
                SnapshotReader snapshot = view.snapshot(branchNumber);
                int[] byType = new int[snapshot.types().size()];
                int at = start;
                for (; at < found.count && (int) (found.places[at] >>> 32) == branchNumber; at++) {
                    byType[snapshot.typeNumber((int) found.places[at])]++;
                    for (int bits = snapshot.traits((int) found.places[at]); bits != 0; bits &= bits - 1) {
                        traits[Integer.numberOfTrailingZeros(bits)]++;
                    }
                }
                repositories.computeIfAbsent(view.branch(branchNumber).repository(), _ -> new int[1])[0] += at - start;
                for (int type = 0; type < byType.length; type++) {
                    if (byType[type] > 0) {
                        types.computeIfAbsent(snapshot.types().get(type), _ -> new int[1])[0] += byType[type];
                    }
                }
                return at;
            }

            List<Share> repositories() {
                return shares(repositories);
            }

            List<Share> types() {
                return shares(types);
            }

            List<Share> traits() {
                Map<String, int[]> byTrait = new HashMap<>();
                for (Trait trait : Trait.values()) {
                    if (traits[trait.code()] > 0) {
                        byTrait.put(trait.label(), new int[] {traits[trait.code()]});
                    }
                }
                return shares(byTrait);
            }

            private static List<Share> shares(Map<String, int[]> counts) {
                return counts.entrySet().stream()
                        .map(entry -> new Share(entry.getKey(), entry.getValue()[0], 0))
                        .toList();
            }
        }
    }

    /** A growing list of what was found: place, points, and how much of the path. */
    private static final class Places {
        private long[] places = new long[64];
        private int[] points = new int[64];
        private int[] lengths = new int[64];
        private int count;

        void add(int branchNumber, int file, int ofPath, int length) {
            if (count == places.length) {
                places = Arrays.copyOf(places, count * 2);
                points = Arrays.copyOf(points, count * 2);
                lengths = Arrays.copyOf(lengths, count * 2);
            }
            places[count] = (long) branchNumber << 32 | file;
            points[count] = ofPath;
            lengths[count++] = length;
        }
    }
}
