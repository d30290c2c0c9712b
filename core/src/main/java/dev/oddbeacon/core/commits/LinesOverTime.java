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
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.Stop;
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

/**
 * When matching lines came in, and when they left: for each commit of the searched branches how many it added and
 * removed. Merges are not counted; what one changes itself shows as a difference between what single commits add up to
 * and what is there now.
 *
 * @param text what is asked of lines: one text or regular expression
 * @param limit most commits that are told
 */
public record LinesOverTime(Query text, CaseMode caseMode, Scope scope, int from, int limit) {
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

    public Answer run(SearchContext context) {
        return new Run(context).answer();
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

        Answer answer() {
            Query limits = scope.query();
            Reached.of(context, limits).forEach((repository, reachable) -> {
                repositories.add(repository);
                count(repositories.size() - 1, reachable, limits);
            });
            changes.sort(Comparator.comparingLong(Change::seconds));
            Map<String, Long> now = new HashMap<>();
            LineAnswer present = LineSearch.counting(CompiledQuery.of(scope.around(text), caseMode))
                    .run(context);
            present.facets().repository().forEach(share -> now.put(share.value(), share.hits()));
            List<OfRepository> courses = new ArrayList<>();
            for (int i = 0; i < repositories.size(); i++) {
                course(i, now.getOrDefault(repositories.get(i), 0L)).ifPresent(courses::add);
            }
            courses.sort(Comparator.comparingInt((OfRepository course) -> course.points.size())
                    .reversed());
            List<Change> events =
                    changes.stream().filter(Change::matters).toList().reversed();
            List<Event> page =
                    events
                            .subList(Math.min(from, events.size()), (int) Math.min((long) from + limit, events.size()))
                            .stream()
                            .map(this::event)
                            .toList();
            boolean isLast = (long) from + limit >= events.size();
            Optional<Stop> stopped = context.budget().stop();
            return new Answer(
                    courses,
                    events.size(),
                    stopped.isEmpty(),
                    stopped,
                    events.isEmpty() ? Optional.empty() : Optional.of(event(events.getLast())),
                    events.isEmpty() ? Optional.empty() : Optional.of(event(events.getFirst())),
                    page,
                    isLast ? Optional.empty() : Optional.of(from + limit));
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

        private Event event(Change change) {
            String repository = repositories.get(change.repository);
            return new Event(
                    repository,
                    CommitSearch.proper(view.past(repository).graph().commit(change.commit), view.mailmap(repository)),
                    change.added,
                    change.removed);
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
