package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.commits.CommitAnswer.ChangedLine;
import dev.oddbeacon.core.commits.CommitAnswer.File;
import dev.oddbeacon.core.commits.CommitAnswer.Found;
import dev.oddbeacon.core.commits.CommitNode.Place;
import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Dividable;
import dev.oddbeacon.core.search.Excerpt.Span;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import java.time.Duration;
import java.time.LocalDate;
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
 * Searches commits, the newest first. They are asked about in portions that grow, from the newest on: of each it is
 * worked out as a set which the question holds for. So a page of what is frequent is there soon, and what is rare is
 * counted to the end; only what is shown of a commit is read for the page.
 *
 * @param query what is asked, its scope included
 * @param from how many commits are passed over
 * @param limit most commits on the page
 * @param exact whether to count to the end; else counting stops soon after the page is full
 */
public record CommitSearch(Query query, CaseMode caseMode, int from, int limit, boolean exact)
        implements Dividable<CommitAnswer, CommitsFound> {
    /** Files of a commit that are told. */
    public static final int MOST_FILES = 50;
    /** Matching lines of a commit that are told. */
    public static final int MOST_LINES = 12;

    private static final long DAY = 86_400; // seconds
    private static final int FIRST_PORTION = 1_000;
    private static final Duration COUNTING = Duration.ofMillis(8);

    @Override
    public boolean canBeDivided() {
        return query.isOfEachRepository() && (long) from + limit <= MOST_TOLD;
    }

    @Override
    public boolean asksOfPasts() {
        return true;
    }

    @Override
    public Optional<Stop> stopped(CommitAnswer answer) {
        return answer.stopped();
    }

    @Override
    public CommitsFound find(SearchContext context) {
        return new Run(context).find();
    }

    @Override
    public boolean isIn(CommitsFound part, View view) {
        return part.isIn(view);
    }

    @Override
    public CommitAnswer answer(List<CommitsFound> parts, SearchContext context) {
        CommitsFound all = CommitsFound.merged(parts);
        List<CommitsFound.At> first = all.first();
        List<CommitsFound.At> onPage =
                first.subList(Math.min(from, first.size()), (int) Math.min((long) from + limit, first.size()));
        CommitNode node = CommitNode.of(query, caseMode, context.now());
        List<Found> page = context.pool().map(context.budget(), onPage, at -> shown(at, node, context));
        Optional<Stop> stopped = all.stopped().or(context.budget()::stop);
        boolean isLast = all.exact() ? (long) from + limit >= all.commits() : onPage.size() < limit;
        return new CommitAnswer(
                all.commits(),
                all.repository().size(),
                all.exact() && stopped.isEmpty(),
                stopped,
                all.facets(),
                page,
                isLast ? Optional.empty() : Optional.of(from + limit));
    }

    private final class Run {
        private final SearchContext context;
        private final View view;
        private final Budget budget;
        private final CommitNode node;
        private final List<String> repositories = new ArrayList<>();
        private final List<BitSet> found = new ArrayList<>();

        Run(SearchContext context) {
            this.context = context;
            this.view = context.view();
            this.budget = context.budget();
            this.node = CommitNode.of(query, caseMode, context.now());
        }

        CommitsFound find() {
            List<CommitSets> sets = new ArrayList<>();
            List<int[]> order = new ArrayList<>(); // commits that are reached, the newest first
            Reached.of(context, query).forEach((repository, reachable) -> {
                repositories.add(repository);
                found.add(new BitSet());
                sets.add(new CommitSets(context, repository));
                order.add(Arrays.stream(view.past(repository).newestFirst())
                        .filter(reachable::get)
                        .toArray());
            });
            int[] next = new int[order.size()];
            PriorityQueue<Integer> open = new PriorityQueue<>(
                    Comparator.comparingLong((Integer i) -> -graph(i).committedSeconds(order.get(i)[next[i]]))
                            .thenComparingInt(Integer::intValue));
            for (int i = 0; i < order.size(); i++) {
                if (order.get(i).length > 0) {
                    open.add(i);
                }
            }
            List<long[]> sorted = new ArrayList<>(); // repository, commit
            for (int portion = FIRST_PORTION;
                    !open.isEmpty() && !budget.isOver() && !isEnough(sorted.size());
                    portion *= 2) {
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
                asked.forEach((repository, commits) ->
                        found.get(repository).or(sets.get(repository).of(node, commits)));
                taken.stream()
                        .filter(one -> found.get((int) one[0]).get((int) one[1]))
                        .forEach(sorted::add);
            }
            Optional<Stop> stopped = budget.stop();
            return new CommitsFound(
                    sorted.size(),
                    open.isEmpty() && stopped.isEmpty(),
                    stopped,
                    people(),
                    ofRepositories(),
                    days(sorted),
                    sorted.stream()
                            .limit((long) from + limit)
                            .map(one -> at((int) one[0], (int) one[1]))
                            .toList());
        }

        private boolean isEnough(int commits) {
            return !exact && commits > (long) from + limit && budget.elapsed().compareTo(COUNTING) > 0;
        }

        private CommitGraph graph(int repository) {
            return view.past(repositories.get(repository)).graph();
        }

        private CommitsFound.At at(int repository, int commit) {
            CommitGraph graph = graph(repository);
            return new CommitsFound.At(
                    repositories.get(repository), graph.id(commit).toString(), graph.committedSeconds(commit));
        }

        private List<Share> people() {
            Map<String, int[]> people = new HashMap<>();
            for (int i = 0; i < found.size(); i++) {
                countPeople(i, people);
            }
            return people.entrySet().stream()
                    .map(entry -> new Share(entry.getKey(), entry.getValue()[0], 0))
                    .toList();
        }

        private List<Share> ofRepositories() {
            List<Share> shares = new ArrayList<>();
            for (int i = 0; i < found.size(); i++) {
                if (!found.get(i).isEmpty()) {
                    shares.add(new Share(repositories.get(i), found.get(i).cardinality(), 0));
                }
            }
            return shares;
        }

        private List<CommitAnswer.Bar> days(List<long[]> commits) {
            Map<Long, int[]> days = new TreeMap<>(); // since 1970
            for (long[] commit : commits) {
                long seconds = graph((int) commit[0]).committedSeconds((int) commit[1]);
                days.computeIfAbsent(Math.floorDiv(seconds, DAY), _ -> new int[1])[0]++;
            }
            return days.entrySet().stream()
                    .map(day -> new CommitAnswer.Bar(LocalDate.ofEpochDay(day.getKey()), day.getValue()[0]))
                    .toList();
        }

        private void countPeople(int repository, Map<String, int[]> into) {
            CommitGraph graph = graph(repository);
            Mailmap mailmap = view.mailmap(repositories.get(repository));
            BitSet commits = found.get(repository);
            for (int number = 0; number < graph.files().size(); number++) {
                HistoryReader file = graph.files().get(number);
                int base = graph.base(number);
                int[] counts = new int[file.people().size()];
                for (int commit = commits.nextSetBit(base);
                        commit >= 0 && commit < graph.base(number + 1);
                        commit = commits.nextSetBit(commit + 1)) {
                    counts[file.author(commit - base)]++;
                }
                for (int person = 0; person < counts.length; person++) {
                    if (counts[person] > 0) {
                        Commit.Person proper = mailmap.proper(file.people().get(person));
                        into.computeIfAbsent(proper.name().isEmpty() ? proper.email() : proper.name(), _ -> new int[1])[
                                        0] +=
                                counts[person];
                    }
                }
            }
        }
    }

    private static Found shown(CommitsFound.At at, CommitNode node, SearchContext context) {
        View view = context.view();
        CommitGraph graph = view.past(at.repository()).graph();
        int commit = graph.find(ObjectId.of(at.commit()));
        HistoryReader file = graph.file(commit);
        int row = graph.row(commit);
        Commit told = proper(file.commit(row), view.mailmap(at.repository()));
        List<File> files = files(file, row);
        List<Span> matches = Spans.of(told.message(), node.wanted(List.of(Place.ANY, Place.MESSAGE)));
        return new Found(
                at.repository(),
                told,
                matches,
                files.subList(0, Math.min(MOST_FILES, files.size())),
                files.size(),
                lines(file, row, files, node, context.budget()),
                file.isWhole(row));
    }

    private static List<ChangedLine> lines(
            HistoryReader file, int row, List<File> files, CommitNode node, Budget budget) {
        List<TextMatcher> added = node.wanted(List.of(Place.ADDED));
        List<TextMatcher> removed = node.wanted(List.of(Place.REMOVED));
        return added.isEmpty() && removed.isEmpty()
                ? List.of()
                : ChangedLines.of(file, row, files, added, removed, MOST_LINES, budget);
    }

    static Commit proper(Commit commit, Mailmap mailmap) {
        return new Commit(
                commit.id(),
                commit.parents(),
                mailmap.proper(commit.author()),
                commit.authored(),
                mailmap.proper(commit.committer()),
                commit.committed(),
                commit.message());
    }

    /** The files that a commit changed. */
    public static List<File> files(HistoryReader file, int row) {
        HistoryReader.Changes changes = file.changes().of(row);
        List<File> files = new ArrayList<>();
        while (changes.next()) {
            files.add(new File(
                    file.paths()[changes.path()],
                    file.paths()[changes.from()],
                    changes.kind(),
                    changes.added(),
                    changes.removed(),
                    changes.binary()));
        }
        return files;
    }
}
