package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.lines.LineAnswer.Explanation;
import dev.oddbeacon.core.lines.LineAnswer.FileHits;
import dev.oddbeacon.core.lines.LineAnswer.Position;
import dev.oddbeacon.core.lines.LineAnswer.Stage;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Effort;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.search.FacetCounter;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.SearchPool;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.snapshot.LastChanges;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.IntStream;

/**
 * Searches lines: candidates from the index, each verified against its text. Threads take candidates in the order of
 * the answer, so whenever they stop, what is counted is a beginning of the list, and the first page is complete before
 * anything behind it is.
 *
 * @param limit most hits on the page; most files, if files are what is shown
 * @param contextLines lines around each hit
 * @param from where the page starts
 * @param exact whether to count to the end; else counting stops soon after the page is full
 * @param ofEachFile most hits that are shown of each file. With less than {@link #ALL}, the rest of them is on no page,
 * and a file is on one page only
 * @param near what is close to this file comes first, in the order of its closeness
 */
public record LineSearch(
        CompiledQuery query,
        int limit,
        int contextLines,
        Position from,
        boolean exact,
        Order order,
        Show show,
        int ofEachFile,
        Optional<FileInHand> near) {
    /** All hits of each file are shown. */
    public static final int ALL = Integer.MAX_VALUE;

    /** A search that shows all hits of each file. */
    public LineSearch(
            CompiledQuery query, int limit, int contextLines, Position from, boolean exact, Order order, Show show) {
        this(query, limit, contextLines, from, exact, order, show, ALL, Optional.empty());
    }

    /** The order of the files. */
    public enum Order {
        /** By repository, branch and path. */
        PATH,
        /** By {@link Relevance}, then by path. */
        RELEVANCE,
        /** By their last change, the latest first, then by path. */
        RECENT
    }

    /** The parts of the answer that are wanted. */
    public enum Show {
        LINES,
        /** Lines that say what of them is a comment or a string. */
        LINES_WITH_REGIONS,
        FILES,
        COUNTS
    }

    /** How long a search goes on only to complete its counts, unless they must be exact. */
    private static final Duration COUNTING = Duration.ofMillis(1);

    /** A page that becomes longer ends early. In UTF-16 units, roughly. */
    private static final long LARGEST_PAGE = 8_000_000;

    private static final int MATCHES_LOOKED_AT = 1_000;
    private static final long LATEST = (1L << 34) - 1; // seconds since 1970: some 500 years
    private static final int INDEX_BITS = 28;

    /** Counts the lines and files that a query finds, and shows none. */
    public static LineSearch counting(CompiledQuery query) {
        return new LineSearch(query, 1, 0, Position.START, true, Order.PATH, Show.COUNTS);
    }

    /** Finds all files that a query finds, without their lines. */
    public static LineSearch ofFiles(CompiledQuery query) {
        return new LineSearch(query, Integer.MAX_VALUE, 0, Position.START, true, Order.PATH, Show.FILES);
    }

    /**
     * A query that asks for no content but what it shows.
     *
     * @param isWhole whether all content that was asked for could be looked at; if not, files are missing
     */
    public record Settled(CompiledQuery query, boolean isWhole) {}

    /** Finds what {@code holds( )} asks for, and makes it a condition. */
    public static Settled settle(CompiledQuery query, SearchContext context) {
        boolean[] isWhole = {true};
        CompiledQuery settled = HeldFiles.settle(query, within -> {
            List<BitSet> files = IntStream.range(0, context.view().branches().size())
                    .mapToObj(_ -> new BitSet())
                    .toList();
            LineAnswer answer = ofFiles(within).run(context);
            isWhole[0] &= answer.exact();
            answer.page().forEach(file -> files.get(file.branchNumber()).set(file.file()));
            return files;
        });
        return new Settled(settled, isWhole[0]);
    }

    /** Runs the search; the caller closes the context. */
    public LineAnswer run(SearchContext context) {
        return run(context, Optional.empty());
    }

    /**
     * The page that this search shows, where the files are known that may stand on it; what is counted is of these.
     *
     * @param files places, ascending: the files that are found first, and the one that the next page starts with
     */
    public LineAnswer pageOf(long[] files, SearchContext context) {
        return run(context, Optional.of(files));
    }

    private LineAnswer run(SearchContext context, Optional<long[]> among) {
        if (context.view().segments().isEmpty()) {
            return new LineAnswer(
                    LineCounts.NONE, List.of(), Optional.empty(), new Explanation("", 0, 0, 0, 0, 0, 0, List.of()));
        }
        Settled settled = settle(query, context);
        LineSearch search = settled.query == query
                ? this
                : new LineSearch(settled.query, limit, contextLines, from, exact, order, show, ofEachFile, near);
        return search.new Run(context, among, settled.isWhole).answer();
    }

    /** Whether the page is filled with files, not with hits. */
    private boolean countsFiles() {
        return show == Show.FILES || !query.showsLines();
    }

    /** What the index says of one segment. */
    private record InSegment(Candidates.InSegment candidates, Ranking.Named named) {}

    /** One run: the stages one after the other, and what they hand on. */
    private final class Run {
        private final View view;
        private final SearchPool pool;
        private final Budget budget;
        private final Effort effort = new Effort();
        private final Limits limits;
        private final List<Stage> stages = new ArrayList<>();
        private final Optional<Ranking> ranking;
        private final boolean hasAllFiles;
        private Candidates candidates;
        private long[]
                places; // in the order of the answer, from the page's first; what earlier pages showed comes last
        private int inOrder; // how many of them are not of earlier pages
        private int[] hits; // by candidate: Verifier.NOT_FOUND, or how many
        private final AtomicInteger next = new AtomicInteger();
        private final AtomicInteger cutAt = new AtomicInteger(Integer.MAX_VALUE);
        private final AtomicLong onPage = new AtomicLong();
        private long stageStart = System.nanoTime();

        /** @param hasAllFiles whether conditions have all the files that they hold for */
        Run(SearchContext context, Optional<long[]> among, boolean hasAllFiles) {
            this.hasAllFiles = hasAllFiles;
            this.view = context.view();
            this.pool = context.pool();
            this.budget = context.budget();
            this.limits = context.limits(query);
            boolean ranks = order == Order.RELEVANCE && show != Show.COUNTS;
            Ranking.Texts texts = ranks ? Ranking.Texts.of(query) : Ranking.Texts.NONE;
            List<InSegment> inSegments = pool.map(
                    budget,
                    view.segments(),
                    segment -> new InSegment(
                            Candidates.inSegment(view, segment, query, effort), Ranking.named(segment, texts)));
            this.candidates = Candidates.of(
                    view, limits, inSegments.stream().map(InSegment::candidates).toList());
            this.ranking = ranks
                    ? Optional.of(new Ranking(
                            view,
                            texts,
                            inSegments.stream().map(InSegment::named).toList()))
                    : Optional.empty();
            long[] byPath = among.map(files -> both(files, candidates.places())).orElse(candidates.places());
            long[] ordered = switch (order) {
                case RECENT -> byDate(byPath);
                case RELEVANCE -> ranking.map(best -> best.ordered(byPath)).orElse(byPath);
                case PATH -> byPath;
            };
            this.places = near.map(file -> file.ordered(view, ordered)).orElse(ordered);
            endStage("candidates");
        }

        private void endStage(String name) {
            long now = System.nanoTime();
            stages.add(new Stage(name, (now - stageStart) / 1e6));
            stageStart = now;
        }

        private long[] byDate(long[] byPath) {
            long[] keys = new long[byPath.length]; // the date, the other way round, and where it stands
            LastChanges[] lastChanges = new LastChanges[view.branches().size()];
            for (int i = 0; i < keys.length; i++) {
                int branch = (int) (byPath[i] >>> 32);
                lastChanges[branch] = lastChanges[branch] == null ? view.lastChanges(branch) : lastChanges[branch];
                long seconds = lastChanges[branch].seconds((int) byPath[i]);
                keys[i] = (LATEST - Math.clamp(seconds, 0, LATEST)) << INDEX_BITS | i;
            }
            Arrays.sort(keys);
            return Arrays.stream(keys)
                    .map(key -> byPath[(int) (key & (1L << INDEX_BITS) - 1)])
                    .toArray();
        }

        private static long[] both(long[] few, long[] many) {
            return Arrays.stream(few)
                    .filter(place -> Arrays.binarySearch(many, place) >= 0)
                    .toArray();
        }

        private static int lowerBound(long[] values, long value) {
            int found = Arrays.binarySearch(values, value);
            return found >= 0 ? found : -found - 1;
        }

        LineAnswer answer() {
            inOrder = places.length;
            if (from.place() >= 0) {
                startAt(
                        order == Order.PATH && near.isEmpty()
                                ? lowerBound(places, from.place())
                                : indexOf(from.place()));
            }
            hits = new int[places.length];
            pool.run(budget, places.length, this::worker);
            endStage("verify");
            return collect();
        }

        private int indexOf(long place) {
            return IntStream.range(0, places.length)
                    .filter(i -> places[i] == place)
                    .findFirst()
                    .orElse(places.length);
        }

        private void startAt(int index) {
            long[] rotated = new long[places.length];
            System.arraycopy(places, index, rotated, 0, places.length - index);
            System.arraycopy(places, 0, rotated, places.length - index, index);
            inOrder = places.length - index;
            places = rotated;
        }

        private SearchPool.Work worker() {
            Verifier verifier = new Verifier(view, limits, query, candidates, pool.stop(budget), effort);
            return nanos -> {
                long end = System.nanoTime() + nanos;
                while (System.nanoTime() < end) {
                    if (isEnough()) {
                        return true;
                    }
                    int index = next.getAndIncrement();
                    if (index >= places.length) {
                        return true;
                    }
                    try {
                        count(verifier, index);
                    } catch (ScanStoppedException e) {
                        cutAt.accumulateAndGet(index, Math::min);
                        if (!budget.isOver()) {
                            budget.exhaust();
                        }
                        return true;
                    }
                }
                return false;
            };
        }

        private void count(Verifier verifier, int index) {
            int found = verifier.hits(places[index]);
            hits[index] = found;
            if (found != Verifier.NOT_FOUND && index < inOrder) {
                onPage.addAndGet(countsFiles() ? 1 : Math.clamp(found, 1, ofEachFile));
            }
        }

        private boolean isEnough() {
            if (budget.isOver() || exact || show == Show.COUNTS) {
                return budget.isOver();
            }
            return onPage.get() > limit + (long) from.hit() && budget.elapsed().compareTo(COUNTING) > 0;
        }

        private LineAnswer collect() {
            int done = Math.min(Math.min(next.get(), places.length), cutAt.get());
            FacetCounter facets = new FacetCounter(view);
            long allHits = 0;
            int files = 0;
            for (int i = 0; i < done; i++) {
                if (hits[i] != Verifier.NOT_FOUND) {
                    allHits += hits[i];
                    files++;
                    facets.add(places[i], hits[i]);
                }
            }
            endStage("count");
            boolean all = done == places.length && hasAllFiles;
            Optional<Stop> stopped = all ? Optional.empty() : budget.stop();
            List<FileHits> page = new ArrayList<>();
            Optional<Position> nextPage = Optional.empty();
            if (show != Show.COUNTS) {
                int[] found = IntStream.range(0, Math.min(done, inOrder))
                        .filter(i -> hits[i] != Verifier.NOT_FOUND)
                        .toArray();
                Page filled = new Page(found, page);
                nextPage = filled.fill();
                if (filled.isCut) {
                    stopped = budget.stop();
                }
                if (nextPage.isEmpty() && done < inOrder && stopped.isEmpty()) {
                    nextPage = Optional.of(new Position(places[done], 0));
                }
            }
            endStage("page");
            // lists and their sizes tell of whole segments, which may hold what is hidden
            Explanation explanation = new Explanation(
                    query.plan(),
                    view.isPart() ? 0 : view.segments().size(),
                    view.isPart() ? 0 : effort.lists.get(),
                    view.isPart() ? 0 : effort.postingsBytes.get(),
                    places.length,
                    effort.filesVerified.get(),
                    effort.bytesVerified.get(),
                    List.copyOf(stages));
            LineCounts counts = new LineCounts(allHits, files, all, stopped, facets.counts());
            return new LineAnswer(counts, page, nextPage, explanation);
        }

        /** The page that is shown. */
        private final class Page {
            private final int[] found;
            private final List<FileHits> files;
            private final Verifier verifier = new Verifier(view, limits, query, candidates, pool.stop(budget), effort);
            private int room = limit;
            private long size;
            private boolean isCut; // there was no time to show all

            /** @param found indexes of files that are found, in the order of the answer */
            Page(int[] found, List<FileHits> files) {
                this.found = found;
                this.files = files;
            }

            /** @return where the next page starts, if the counted files hold more than fit */
            Optional<Position> fill() {
                for (int index : found) {
                    int skip = places[index] == from.place() ? from.hit() : 0;
                    int rest = countsFiles() || hits[index] == 0 ? 1 : Math.min(hits[index] - skip, ofEachFile);
                    if (rest <= 0) {
                        continue;
                    }
                    boolean staysWhole = ofEachFile < ALL && rest > room && !files.isEmpty();
                    if (room == 0 || size > LARGEST_PAGE || staysWhole) {
                        return Optional.of(new Position(places[index], skip));
                    }
                    int shown = Math.min(rest, room);
                    try {
                        files.add(file(index, skip, shown));
                    } catch (ScanStoppedException e) {
                        isCut = true;
                        return Optional.of(new Position(places[index], skip));
                    }
                    room -= shown;
                    if (shown < rest && ofEachFile == ALL) {
                        return Optional.of(new Position(places[index], skip + shown));
                    }
                }
                return Optional.empty();
            }

            private FileHits file(int index, int skip, int shown) {
                long place = places[index];
                List<Excerpt> excerpts = List.of();
                if (!countsFiles() && hits[index] > 0) {
                    verifier.reopen(place);
                    int first = firstShown(index, skip, shown); // goes through the matches, too
                    excerpts = new Excerpts(
                                    verifier.segment(), verifier.blob(), contextLines, show == Show.LINES_WITH_REGIONS)
                            .of(verifier.matches(), first, shown);
                    size += excerpts.stream()
                            .flatMap(excerpt -> excerpt.lines().stream())
                            .mapToLong(line -> line.text().length())
                            .sum();
                }
                return new FileHits(
                        (int) (place >>> 32), (int) place, hits[index], ranking.map(best -> best.of(place)), excerpts);
            }

            /** Which hit is the first one shown: where not all are, the one that declares is among them. */
            private int firstShown(int index, int skip, int shown) {
                if (ofEachFile == ALL || shown == hits[index]) {
                    return skip;
                }
                int declaring = verifier.hitThatDeclares(MATCHES_LOOKED_AT);
                return Math.min(Math.max(0, declaring - 1), hits[index] - shown);
            }
        }
    }
}
