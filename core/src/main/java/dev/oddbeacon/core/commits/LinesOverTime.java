package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Dividable;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;

/**
 * When matching lines came in, and when they left: for each commit of the searched branches how many it added and
 * removed. Merges are not counted; what one changes itself shows as a difference between what single commits add up to
 * and what is there now.
 *
 * @param text what is asked of lines: one text or regular expression
 * @param limit most commits that are told
 */
public record LinesOverTime(Query text, CaseMode caseMode, Scope scope, int from, int limit)
        implements Dividable<LinesOverTime.Answer, LinesOverTime.Found> {
    private static final int MOST_POINTS = 300;

    /** @param difference lines there are now that single commits do not explain; negative if more should be there */
    public record OfRepository(String repository, List<Point> points, long now, long difference) {}

    /** @param lines that matched at the end of a day */
    public record Point(LocalDate day, long lines) {}

    /** A commit after which there were more matching lines, or fewer. */
    public record Event(String repository, Commit commit, int added, int removed) {}

    /**
     * @param courses of each repository that ever had such a line, the most changed first
     * @param commits that changed how many there are
     * @param events the newest first
     * @param first the earliest commit that added one
     */
    public record Answer(
            List<OfRepository> courses,
            long commits,
            boolean exact,
            Optional<Stop> stopped,
            Optional<Event> first,
            Optional<Event> last,
            List<Event> events,
            Optional<Integer> next) {}

    /**
     * What came and went in some repositories, or in all.
     *
     * @param commits that changed how many there are
     * @param oldest the earliest of them
     * @param newest those that may stand on the page, the newest first
     */
    public record Found(
            List<OfRepository> courses, long commits, Optional<Stop> stopped, Optional<At> oldest, List<At> newest) {
        boolean isIn(View view) {
            return Stream.concat(oldest.stream(), newest.stream())
                    .allMatch(at -> view.past(at.repository).graph().find(ObjectId.of(at.commit)) >= 0);
        }
    }

    /** A commit, as every machine knows it. @param seconds when it was committed, since 1970 */
    public record At(String repository, String commit, long seconds, int added, int removed) {
        private static final Comparator<At> ASCENDING =
                Comparator.comparingLong(At::seconds).thenComparing(At::repository);
    }

    @Override
    public boolean canBeDivided() {
        return scope.query().isOfEachRepository() && (long) from + limit <= MOST_TOLD;
    }

    @Override
    public boolean asksOfPasts() {
        return true;
    }

    @Override
    public Optional<Stop> stopped(Answer answer) {
        return answer.stopped;
    }

    @Override
    public Found find(SearchContext context) {
        return new Run(context).find();
    }

    @Override
    public boolean isIn(Found part, View view) {
        return part.isIn(view);
    }

    @Override
    public Answer answer(List<Found> parts, SearchContext context) {
        View view = context.view();
        List<At> newest = parts.stream()
                .flatMap(part -> part.newest.stream())
                .sorted(At.ASCENDING.reversed())
                .toList();
        long commits = parts.stream().mapToLong(Found::commits).sum();
        Optional<Stop> stopped = parts.stream()
                .flatMap(part -> part.stopped.stream())
                .findFirst()
                .or(context.budget()::stop);
        return new Answer(
                parts.stream()
                        .flatMap(part -> part.courses.stream())
                        .sorted(Comparator.comparingInt((OfRepository course) -> course.points.size())
                                .reversed()
                                .thenComparing(OfRepository::repository))
                        .toList(),
                commits,
                stopped.isEmpty(),
                stopped,
                parts.stream()
                        .flatMap(part -> part.oldest.stream())
                        .min(At.ASCENDING)
                        .map(at -> event(view, at)),
                newest.stream().findFirst().map(at -> event(view, at)),
                newest
                        .subList(Math.min(from, newest.size()), (int) Math.min((long) from + limit, newest.size()))
                        .stream()
                        .map(at -> event(view, at))
                        .toList(),
                (long) from + limit >= commits ? Optional.empty() : Optional.of(from + limit));
    }

    private static Event event(View view, At at) {
        CommitGraph graph = view.past(at.repository).graph();
        Commit commit = graph.commit(graph.find(ObjectId.of(at.commit)));
        return new Event(at.repository, CommitSearch.proper(commit, view.mailmap(at.repository)), at.added, at.removed);
    }

    private record Change(int repository, int commit, long seconds, int added, int removed) {
        boolean matters() {
            return added != removed;
        }
    }

    private final class Run {
        private final SearchContext context;
        private final View view;
        private final TextMatcher matcher;
        private final List<String> repositories = new ArrayList<>();
        private final List<Change> changes = new ArrayList<>();

        Run(SearchContext context) {
            this.context = context;
            this.view = context.view();
            List<TextMatcher> clauses =
                    isText(text) ? CompiledQuery.of(text, caseMode).clauses() : List.of();
            if (clauses.size() != 1) {
                throw new InvalidQueryException(
                        "What came and went is told of one text or one regular expression. Several can be joined by | in a regular expression.");
            }
            this.matcher = clauses.getFirst();
        }

        Found find() {
            Query limits = scope.query();
            Reached.of(context, limits).forEach((repository, reachable) -> {
                repositories.add(repository);
                count(repositories.size() - 1, reachable, limits);
            });
            changes.sort(Comparator.comparingLong(Change::seconds)
                    .thenComparingInt(Change::repository)
                    .thenComparingInt(Change::commit));
            Map<String, Long> now = new HashMap<>();
            LineAnswer present = LineSearch.counting(CompiledQuery.of(scope.around(text), caseMode))
                    .run(context);
            present.counts().facets().repository().forEach(share -> now.put(share.value(), share.hits()));
            List<OfRepository> courses = new ArrayList<>();
            for (int i = 0; i < repositories.size(); i++) {
                course(i, now.getOrDefault(repositories.get(i), 0L)).ifPresent(courses::add);
            }
            List<Change> events = changes.stream().filter(Change::matters).toList();
            return new Found(
                    courses,
                    events.size(),
                    context.budget().stop(),
                    events.stream().findFirst().map(this::at),
                    events.reversed().stream()
                            .limit((long) from + limit)
                            .map(this::at)
                            .toList());
        }

        private void count(int number, BitSet reachable, Query limits) {
            String repository = repositories.get(number);
            CommitGraph graph = view.past(repository).graph();
            Map<Integer, int[]> counts = new HashMap<>(); // added, removed
            boolean asksOfPaths = !limits.conditions().stream().allMatch(LinesOverTime::isOfBranch);
            PastPath pastPath = new PastPath(context, repository);
            new CommitSets(context, repository)
                    .forEachMatchingRun(matcher, reachable, _ -> true, false, (base, block, run, lines) -> {
                        int commit = base + block.commit(run);
                        synchronized (counts) {
                            if (!asksOfPaths || holds(limits, pastPath.at(path(graph, commit, block.change(run))))) {
                                counts.computeIfAbsent(commit, _ -> new int[2])[block.isAdded(run) ? 0 : 1] += lines;
                            }
                        }
                    });
            counts.forEach((commit, found) ->
                    changes.add(new Change(number, commit, graph.committedSeconds(commit), found[0], found[1])));
        }

        /** The path of a file that a commit changed. @param change its number among the changes of the commit */
        private static String path(CommitGraph graph, int commit, int change) {
            HistoryReader file = graph.file(commit);
            HistoryReader.Changes changes = file.changes().of(graph.row(commit));
            for (int i = 0; i <= change; i++) {
                changes.next();
            }
            return file.paths()[changes.path()];
        }

        private Optional<OfRepository> course(int number, long now) {
            TreeMap<LocalDate, Long> byDay = new TreeMap<>();
            long lines = 0;
            for (Change change : changes) {
                if (change.repository == number) {
                    lines += change.added - change.removed;
                    byDay.put(LocalDate.ofInstant(Instant.ofEpochSecond(change.seconds), ZoneOffset.UTC), lines);
                }
            }
            if (byDay.isEmpty() && now == 0) {
                return Optional.empty();
            }
            TreeMap<LocalDate, Long> points = byDay;
            for (CommitAnswer.Unit unit :
                    new CommitAnswer.Unit[] {CommitAnswer.Unit.WEEK, CommitAnswer.Unit.MONTH, CommitAnswer.Unit.YEAR}) {
                if (points.size() > MOST_POINTS) {
                    TreeMap<LocalDate, Long> coarser = new TreeMap<>();
                    byDay.forEach((day, count) -> coarser.put(Timelines.start(unit, day), count));
                    points = coarser;
                }
            }
            return Optional.of(new OfRepository(
                    repositories.get(number),
                    points.entrySet().stream()
                            .map(point -> new Point(point.getKey(), point.getValue()))
                            .toList(),
                    now,
                    now - lines));
        }

        private At at(Change change) {
            String repository = repositories.get(change.repository);
            String id = view.past(repository).graph().id(change.commit).toString();
            return new At(repository, id, change.seconds, change.added, change.removed);
        }
    }

    private static boolean isText(Query query) {
        return query instanceof TextClause && !(query instanceof TextClause.OfCode)
                || query instanceof Query.Marked marked && isText(marked.part());
    }

    /** Whether a scope holds for a path of the past. Which branches are looked at is decided before. */
    private static boolean holds(Query scope, PastPath path) {
        return switch (scope) {
            case Query.And and -> and.parts().stream().allMatch(part -> holds(part, path));
            case Query.Or or -> or.parts().stream().anyMatch(part -> holds(part, path));
            case Query.Not(FileCondition condition) -> isOfBranch(condition) || !condition.holds(path);
            case FileCondition condition -> isOfBranch(condition) || condition.holds(path);
            case Query.Everything _ -> true;
            case Query.Not _, Query.Marked _, Query.InRegion _, Query.Holds _, TextClause _, CommitCondition _ ->
                throw new IllegalArgumentException("no scope: " + scope);
        };
    }

    private static boolean isOfBranch(FileCondition condition) {
        return condition instanceof FileCondition.Repository
                || condition instanceof FileCondition.Label
                || condition instanceof FileCondition.OnBranch;
    }
}
