package dev.oddbeacon.core.search;

import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.search.CommitAnswer.ChangedLine;
import dev.oddbeacon.core.search.CommitAnswer.File;
import dev.oddbeacon.core.search.CommitAnswer.Found;
import dev.oddbeacon.core.search.CommitNode.Place;
import dev.oddbeacon.core.search.LineAnswer.Share;
import dev.oddbeacon.core.search.LineAnswer.Span;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.PriorityQueue;
import java.util.TreeMap;

/**
 * Searches commits, the newest first. They are asked about in portions that grow, from the newest on: of each it is worked
 * out as a set which the question holds for. So a page of what is frequent is there soon, and what is rare is counted to the
 * end; only what is shown of a commit is read for the page.
 *
 * @param query what is asked, its scope included
 * @param from how many commits are passed over
 * @param limit most commits on the page
 * @param exact whether to count to the end; else counting stops soon after the page is full
 */
public record CommitSearch(Query query, CaseMode caseMode, int from, int limit, boolean exact, Limits.Exclusions exclusions, Budget budget) {
    /** Files of a commit that are told. */
    public static final int MOST_FILES = 50;
    /** Matching lines of a commit that are told. */
    public static final int MOST_LINES = 12;
    private static final int MOST_PEOPLE = 50;
    private static final int FIRST_PORTION = 1_000;
    private static final Duration COUNTING = Duration.ofMillis(8);

    /** Runs the search; the caller keeps the view open. */
    public CommitAnswer run(View view, SearchPool pool) {
        return new Run(view, pool).answer();
    }

    /** Branches that a query may be about, whatever it asks of commits: repositories, labels and branches decide. */
    static Limits branches(View view, Query query) {
        return Limits.of(view, branchQuery(query), Limits.Exclusions.NONE);
    }

    /** What a query says of repositories, labels and branches. */
    public static CompiledQuery branchQuery(Query query) {
        return CompiledQuery.of(limits(query), CaseMode.AUTO);
    }

    private static Query limits(Query query) {
        return switch (query) {
            case Query.And and -> new Query.And(and.parts().stream().map(CommitSearch::limits).toList());
            case Query.Or or -> new Query.Or(or.parts().stream().map(CommitSearch::limits).toList());
            case Query.Limit limit when limit.kind() == Query.LimitKind.REPO || limit.kind() == Query.LimitKind.LABEL || limit.kind() == Query.LimitKind.BRANCH -> limit;
            case Query.Not not when not.part() instanceof Query.Limit -> limits(not.part()) instanceof Query.Everything ? Query.EVERYTHING : not;
            default -> Query.EVERYTHING;
        };
    }

    /** The commits of each repository that its searched branches reach. */
    static Map<String, BitSet> reachable(View view, Limits limits) {
        Map<String, BitSet> reachable = new LinkedHashMap<>();
        for (int rank = 0; rank < view.branches().size(); rank++) {
            if (limits.holdsBranch(rank)) {
                String repository = view.branch(rank).repository();
                Past past = view.past(repository);
                if (!past.isEmpty()) {
                    reachable.computeIfAbsent(repository, _ -> new BitSet()).or(past.reachable(ObjectId.of(view.branch(rank).commit())));
                }
            }
        }
        return reachable;
    }

    private final class Run {
        private final View view;
        private final SearchPool pool;
        private final CommitNode node = CommitNode.of(query, caseMode);
        private final List<String> repositories = new ArrayList<>();
        private final List<BitSet> found = new ArrayList<>();

        Run(View view, SearchPool pool) {
            this.view = view;
            this.pool = pool;
        }

        CommitAnswer answer() {
            List<CommitSets> sets = new ArrayList<>();
            List<int[]> order = new ArrayList<>(); // commits that are reached, the newest first
            reachable(view, branches(view, query)).forEach((repository, reachable) -> {
                repositories.add(repository);
                found.add(new BitSet());
                sets.add(new CommitSets(view, repository, exclusions, budget, pool));
                order.add(Arrays.stream(view.past(repository).newestFirst()).filter(reachable::get).toArray());
            });
            int[] next = new int[order.size()];
            PriorityQueue<Integer> open = new PriorityQueue<>(Comparator.comparingLong((Integer i) -> -graph(i).committedSeconds(order.get(i)[next[i]])).thenComparingInt(Integer::intValue));
            for (int i = 0; i < order.size(); i++) {
                if (order.get(i).length > 0) {
                    open.add(i);
                }
            }
            List<long[]> sorted = new ArrayList<>(); // repository, commit
            for (int portion = FIRST_PORTION; !open.isEmpty() && !budget.isOver() && !isEnough(sorted.size()); portion *= 2) {
                Map<Integer, BitSet> asked = new LinkedHashMap<>();
                List<long[]> taken = new ArrayList<>();
                while (!open.isEmpty() && taken.size() < portion) {
                    int repository = open.remove();
                    int commit = order.get(repository)[next[repository]++];
                    taken.add(new long[] {repository, commit});
                    asked.computeIfAbsent(repository, _ -> new BitSet()).set(commit);
                    if (next[repository] < order.get(repository).length) {
                        open.add(repository);
                    }
                }
                asked.forEach((repository, commits) -> found.get(repository).or(sets.get(repository).of(node, commits)));
                taken.stream().filter(one -> found.get((int) one[0]).get((int) one[1])).forEach(sorted::add);
            }
            List<long[]> onPage = sorted.subList(Math.min(from, sorted.size()), (int) Math.min((long) from + limit, sorted.size()));
            List<Found> page = pool.map(budget, onPage, one -> shown((int) one[0], (int) one[1]));
            boolean all = open.isEmpty();
            boolean isLast = all && (long) from + limit >= sorted.size();
            Optional<LineAnswer.Stop> stopped = budget.stop();
            return new CommitAnswer(sorted.size(), (int) found.stream().filter(commits -> !commits.isEmpty()).count(), all && stopped.isEmpty(), stopped, facets(sorted), page, isLast ? Optional.empty() : Optional.of(from + limit));
        }

        private boolean isEnough(int commits) {
            return !exact && commits > (long) from + limit && budget.elapsed().compareTo(COUNTING) > 0;
        }

        private CommitGraph graph(int repository) {
            return view.past(repositories.get(repository)).graph();
        }

        private CommitAnswer.Facets facets(List<long[]> sorted) {
            Map<String, int[]> people = new HashMap<>();
            Map<String, int[]> years = new TreeMap<>(Comparator.reverseOrder());
            for (int i = 0; i < found.size(); i++) {
                countPeople(i, people);
            }
            List<LocalDate> days = new ArrayList<>(sorted.size());
            for (long[] commit : sorted) {
                LocalDate day = LocalDate.ofInstant(Instant.ofEpochSecond(graph((int) commit[0]).committedSeconds((int) commit[1])), ZoneOffset.UTC);
                days.add(day);
                years.computeIfAbsent(String.format("%04d", day.getYear()), _ -> new int[1])[0]++;
            }
            List<Share> ofRepositories = new ArrayList<>();
            for (int i = 0; i < found.size(); i++) {
                if (found.get(i).isEmpty()) {
                    continue;
                }
                ofRepositories.add(new Share(repositories.get(i), found.get(i).cardinality(), 0));
            }
            ofRepositories.sort(Comparator.comparingInt(Share::files).reversed().thenComparing(Share::value));
            return new CommitAnswer.Facets(shares(people).stream().sorted(Comparator.comparingInt(Share::files).reversed().thenComparing(Share::value)).limit(MOST_PEOPLE).toList(), ofRepositories, shares(years),
                    Timelines.of(days));
        }

        private void countPeople(int repository, Map<String, int[]> into) {
            CommitGraph graph = graph(repository);
            Mailmap mailmap = view.mailmap(repositories.get(repository));
            BitSet commits = found.get(repository);
            for (int number = 0; number < graph.files().size(); number++) {
                HistoryReader file = graph.files().get(number);
                int base = graph.base(number);
                int[] counts = new int[file.people().size()];
                for (int commit = commits.nextSetBit(base); commit >= 0 && commit < graph.base(number + 1); commit = commits.nextSetBit(commit + 1)) {
                    counts[file.author(commit - base)]++;
                }
                for (int person = 0; person < counts.length; person++) {
                    if (counts[person] > 0) {
                        Commit.Person proper = mailmap.proper(file.people().get(person));
                        into.computeIfAbsent(proper.name().isEmpty() ? proper.email() : proper.name(), _ -> new int[1])[0] += counts[person];
                    }
                }
            }
        }

        private static List<Share> shares(Map<String, int[]> counts) {
            return counts.entrySet().stream().map(entry -> new Share(entry.getKey(), entry.getValue()[0], 0)).toList();
        }

        private Found shown(int repository, int commit) {
            CommitGraph graph = graph(repository);
            HistoryReader file = graph.file(commit);
            int row = graph.row(commit);
            Commit told = proper(file.commit(row), view.mailmap(repositories.get(repository)));
            List<File> files = files(file, row);
            List<Span> matches = spans(told.message(), node.wanted(List.of(Place.ANY, Place.MESSAGE)));
            return new Found(repositories.get(repository), told, matches, files.subList(0, Math.min(MOST_FILES, files.size())), files.size(), lines(file, row, files), file.isWhole(row));
        }

        private List<ChangedLine> lines(HistoryReader file, int row, List<File> files) {
            List<TextMatcher> added = node.wanted(List.of(Place.ADDED));
            List<TextMatcher> removed = node.wanted(List.of(Place.REMOVED));
            return added.isEmpty() && removed.isEmpty() ? List.of() : ChangedLines.of(file, row, files, added, removed, MOST_LINES, budget);
        }
    }

    static Commit proper(Commit commit, Mailmap mailmap) {
        return new Commit(commit.id(), commit.parents(), mailmap.proper(commit.author()), commit.authored(), mailmap.proper(commit.committer()), commit.committed(), commit.message());
    }

    /** The files that a commit changed. */
    public static List<File> files(HistoryReader file, int row) {
        HistoryReader.Changes changes = file.changes().of(row);
        List<File> files = new ArrayList<>();
        while (changes.next()) {
            files.add(new File(file.paths()[changes.path()], file.paths()[changes.from()], changes.kind(), changes.added(), changes.removed(), changes.binary()));
        }
        return files;
    }

    /** Where texts match, in UTF-16 units; what overlaps becomes one. */
    static List<Span> spans(String text, List<TextMatcher> matchers) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        List<int[]> found = new ArrayList<>();
        for (TextMatcher matcher : matchers) {
            TextMatcher.Finder finder = matcher.finder(() -> false);
            finder.begin(MemorySegment.ofArray(utf8), 0, utf8.length, 0, utf8.length);
            while (finder.next()) {
                if (finder.end() > finder.start()) {
                    found.add(new int[] {(int) finder.start(), (int) finder.end()});
                }
            }
        }
        found.sort(Comparator.comparingInt(span -> span[0]));
        List<Span> spans = new ArrayList<>();
        int at = 0;
        int unit = 0;
        for (int i = 0; i < found.size(); i++) {
            int start = Math.max(at, found.get(i)[0]);
            int end = found.get(i)[1];
            while (i + 1 < found.size() && found.get(i + 1)[0] < end) {
                end = Math.max(end, found.get(++i)[1]);
            }
            if (end > start) {
                unit += new String(Arrays.copyOfRange(utf8, at, start), StandardCharsets.UTF_8).length();
                int length = new String(Arrays.copyOfRange(utf8, start, end), StandardCharsets.UTF_8).length();
                spans.add(new Span(unit, unit + length));
                unit += length;
                at = end;
            }
        }
        return spans;
    }
}
