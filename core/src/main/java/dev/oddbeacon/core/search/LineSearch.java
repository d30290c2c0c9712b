package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.search.LineAnswer.FileHits;
import dev.oddbeacon.core.search.LineAnswer.Position;
import dev.oddbeacon.core.search.LineAnswer.Share;
import dev.oddbeacon.core.search.LineAnswer.Stop;
import dev.oddbeacon.core.snapshot.View;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Searches lines: candidates from the index, each verified against its text, in the order of repository, branch and
 * path. Threads take candidates in that order, so whenever they stop, what is counted is a beginning of the list,
 * and the first page is complete before anything behind it is.
 *
 * @param limit most hits on the page
 * @param context lines around each hit
 * @param from where the page starts
 * @param exact whether to count to the end; else counting stops soon after the page is full
 */
public record LineSearch(TextMatcher matcher, Scope scope, int limit, int context, Position from, boolean exact, Budget budget) {
    /** How long counting goes on for the sake of counts alone, unless they must be exact. */
    private static final Duration COUNTING = Duration.ofMillis(10);
    private static final Duration SLICE = Duration.ofMillis(4);

    /** Runs the search; the caller keeps the view open. */
    public LineAnswer run(View view, SearchPool pool) {
        Scope.Selection selection = scope.select(view);
        List<CandidateFile> ordered = pool.call(() -> CandidateFile.of(view, selection, matcher));
        int start = firstAtOrAfter(ordered, from.place());
        List<CandidateFile> candidates = new ArrayList<>(ordered.subList(start, ordered.size()));
        candidates.addAll(ordered.subList(0, start)); // what earlier pages showed is counted last
        int inOrder = ordered.size() - start;

        Count count = new Count(candidates, inOrder);
        List<Future<?>> workers = new ArrayList<>();
        for (int i = 0; i < Math.min(pool.threads(), candidates.size()); i++) {
            workers.add(pool.runInSlices(count.worker()));
        }
        workers.forEach(SearchPool::await);
        return answer(view, candidates, inOrder, count, pool);
    }

    private static int firstAtOrAfter(List<CandidateFile> candidates, long place) {
        int low = 0;
        int high = candidates.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (candidates.get(middle).place() < place) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** The hits of each candidate, counted by several threads. */
    private final class Count {
        private final List<CandidateFile> candidates;
        private final int inOrder;
        private final int[] hits;
        private final AtomicInteger next = new AtomicInteger();
        private final AtomicInteger cutAt;
        private final AtomicLong onPage = new AtomicLong();

        Count(List<CandidateFile> candidates, int inOrder) {
            this.candidates = candidates;
            this.inOrder = inOrder;
            this.hits = new int[candidates.size()];
            this.cutAt = new AtomicInteger(candidates.size());
        }

        java.util.function.BooleanSupplier worker() {
            TextMatcher.Finder finder = matcher.finder();
            return () -> {
                long end = System.nanoTime() + SLICE.toNanos();
                while (System.nanoTime() < end) {
                    if (isEnough()) {
                        return true;
                    }
                    int index = next.getAndIncrement();
                    if (index >= candidates.size()) {
                        return true;
                    }
                    int found = candidates.get(index).countHits(matcher, finder, budget);
                    if (found < 0) {
                        cutAt.accumulateAndGet(index, Math::min);
                        return true;
                    }
                    hits[index] = found;
                    if (index < inOrder) {
                        onPage.addAndGet(found);
                    }
                }
                return false;
            };
        }

        private boolean isEnough() {
            boolean pageIsFull = onPage.get() > limit + (long) from.hit();
            return budget.isOver() || pageIsFull && !exact && budget.elapsed().compareTo(COUNTING) > 0;
        }

        /** How many candidates, from the first, are counted. */
        int done() {
            return Math.min(Math.min(next.get(), candidates.size()), cutAt.get());
        }
    }

    private LineAnswer answer(View view, List<CandidateFile> candidates, int inOrder, Count count, SearchPool pool) {
        int done = count.done();
        Map<Integer, Share> byRank = new TreeMap<>();
        Set<String> repositories = new HashSet<>();
        long hits = 0;
        int files = 0;
        for (int i = 0; i < done; i++) {
            if (count.hits[i] > 0) {
                hits += count.hits[i];
                files++;
                int rank = candidates.get(i).rank();
                repositories.add(view.branch(rank).repository());
                byRank.merge(rank, new Share(1, count.hits[i]), (a, b) -> new Share(a.files() + b.files(), a.hits() + b.hits()));
            }
        }
        boolean all = done == candidates.size();
        Optional<Stop> stopped = all || !budget.isOver() ? Optional.empty() : Optional.of(budget.isCancelled() ? Stop.CANCELLED : Stop.TIME);
        List<FileHits> page = new ArrayList<>();
        Optional<Position> next = pool.call(() -> fillPage(candidates, Math.min(done, inOrder), count.hits, page));
        if (next.isEmpty() && done < inOrder && stopped.isEmpty()) {
            next = Optional.of(new Position(candidates.get(done).place(), 0));
        }
        return new LineAnswer(hits, files, repositories.size(), all, stopped, byRank, page, next);
    }

    /** @return where the next page starts, if the counted files hold more hits than fit */
    private Optional<Position> fillPage(List<CandidateFile> candidates, int end, int[] hits, List<FileHits> page) {
        TextMatcher.Finder finder = matcher.finder();
        int room = limit;
        for (int i = 0; i < end; i++) {
            CandidateFile candidate = candidates.get(i);
            int skip = candidate.place() == from.place() ? from.hit() : 0;
            int rest = hits[i] - skip;
            if (rest <= 0) {
                continue;
            }
            if (room == 0) {
                return Optional.of(new Position(candidate.place(), skip));
            }
            int shown = Math.min(rest, room);
            page.add(new FileHits(candidate.rank(), candidate.file(), hits[i], new Excerpts(candidate, context).of(finder, skip, shown)));
            room -= shown;
            if (shown < rest) {
                return Optional.of(new Position(candidate.place(), skip + shown));
            }
        }
        return Optional.empty();
    }
}
