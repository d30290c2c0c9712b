package dev.oddbeacon.core.search;

import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.PathKinds;
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
 * When matching lines came in, and when they left: for each commit of the searched branches how many it added and removed.
 * Merges are not counted; what one changes itself shows as a difference between what single commits add up to and what is
 * there now.
 *
 * @param text what is asked of lines: one text or regular expression
 * @param limit most commits that are told
 */
public record ComeAndGo(Query text, CaseMode caseMode, Scope scope, int from, int limit, Limits.Exclusions exclusions, Budget budget) {
    private static final int MOST_POINTS = 300;

    /** @param difference lines there are now that single commits do not explain; negative if more should be there */
    public record Course(String repository, List<Point> points, long now, long difference) {}

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
    public record Answer(List<Course> courses, long commits, boolean exact, Optional<LineAnswer.Stop> stopped, Optional<Event> first, Optional<Event> last, List<Event> events, Optional<Integer> next) {}

    public Answer run(View view, SearchPool pool) {
        return new Run(view, pool).answer();
    }

    private record Change(int repository, int commit, long seconds, int added, int removed) {
        boolean matters() {
            return added != removed;
        }
    }

    private final class Run {
        private final View view;
        private final SearchPool pool;
        private final TextMatcher matcher;
        private final List<String> repositories = new ArrayList<>();
        private final List<Change> changes = new ArrayList<>();

        Run(View view, SearchPool pool) {
            this.view = view;
            this.pool = pool;
            List<TextMatcher> clauses = isText(text) ? CompiledQuery.of(text, caseMode).clauses() : List.of();
            if (clauses.size() != 1) {
                throw new InvalidQueryException("What came and went is told of one text or one regular expression. Several can be joined by | in a regular expression.");
            }
            this.matcher = clauses.getFirst();
        }

        Answer answer() {
            Query limits = scope.query();
            CommitSearch.reachable(view, CommitSearch.branches(view, limits)).forEach((repository, reachable) -> {
                repositories.add(repository);
                count(repositories.size() - 1, reachable, limits);
            });
            changes.sort(Comparator.comparingLong(Change::seconds));
            Map<String, Long> now = new HashMap<>();
            LineAnswer present = new LineSearch(CompiledQuery.of(scope.around(text), caseMode), 1, 0, LineAnswer.Position.START, true, LineSearch.Order.PATH, LineSearch.Show.COUNTS, exclusions, budget).run(view, pool);
            present.facets().repository().forEach(share -> now.put(share.value(), share.hits()));
            List<Course> courses = new ArrayList<>();
            for (int i = 0; i < repositories.size(); i++) {
                course(i, now.getOrDefault(repositories.get(i), 0L)).ifPresent(courses::add);
            }
            courses.sort(Comparator.comparingInt((Course course) -> course.points.size()).reversed());
            List<Change> events = changes.stream().filter(Change::matters).toList().reversed();
            List<Event> page = events.subList(Math.min(from, events.size()), (int) Math.min((long) from + limit, events.size())).stream().map(this::event).toList();
            boolean isLast = (long) from + limit >= events.size();
            Optional<LineAnswer.Stop> stopped = budget.stop();
            return new Answer(courses, events.size(), stopped.isEmpty(), stopped, events.isEmpty() ? Optional.empty() : Optional.of(event(events.getLast())),
                    events.isEmpty() ? Optional.empty() : Optional.of(event(events.getFirst())), page, isLast ? Optional.empty() : Optional.of(from + limit));
        }

        private void count(int number, BitSet reachable, Query limits) {
            String repository = repositories.get(number);
            CommitGraph graph = view.past(repository).graph();
            Map<Integer, int[]> counts = new HashMap<>(); // added, removed
            boolean asksOfPaths = asksOfPaths(limits);
            new CommitSets(view, repository, exclusions, budget, pool).forEachMatchingRun(matcher, reachable, _ -> true, false, (base, block, run, lines) -> {
                int commit = base + block.commit(run);
                if (!asksOfPaths || isAsked(limits, graph, commit, block.change(run))) {
                    synchronized (counts) {
                        counts.computeIfAbsent(commit, _ -> new int[2])[block.isAdded(run) ? 0 : 1] += lines;
                    }
                }
            });
            counts.forEach((commit, found) -> changes.add(new Change(number, commit, graph.committedSeconds(commit), found[0], found[1])));
        }

        private static boolean isAsked(Query limits, CommitGraph graph, int commit, int change) {
            HistoryReader file = graph.file(commit);
            HistoryReader.Changes changes = file.changes().of(graph.row(commit));
            for (int i = 0; i <= change; i++) {
                changes.next();
            }
            return holds(limits, file.paths()[changes.path()]);
        }

        private Optional<Course> course(int number, long now) {
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
            for (CommitAnswer.Unit unit : new CommitAnswer.Unit[] {CommitAnswer.Unit.WEEK, CommitAnswer.Unit.MONTH, CommitAnswer.Unit.YEAR}) {
                if (points.size() > MOST_POINTS) {
                    TreeMap<LocalDate, Long> coarser = new TreeMap<>();
                    byDay.forEach((day, count) -> coarser.put(Timelines.start(unit, day), count));
                    points = coarser;
                }
            }
            return Optional.of(new Course(repositories.get(number), points.entrySet().stream().map(point -> new Point(point.getKey(), point.getValue())).toList(), now, now - lines));
        }

        private Event event(Change change) {
            String repository = repositories.get(change.repository);
            return new Event(repository, CommitSearch.proper(view.past(repository).graph().commit(change.commit), view.mailmap(repository)), change.added, change.removed);
        }
    }

    private static boolean isText(Query query) {
        return switch (query) {
            case Query.Text _, Query.Wildcard _, Query.Pattern _, Query.Like _, Query.Near _, Query.OnLine _ -> true;
            case Query.Marked marked -> isText(marked.part());
            default -> false;
        };
    }

    /** Whether limits hold for a path, as far as a path alone can tell. */
    private static boolean holds(Query limits, String path) {
        return switch (limits) {
            case Query.And and -> and.parts().stream().allMatch(part -> holds(part, path));
            case Query.Or or -> or.parts().stream().anyMatch(part -> holds(part, path));
            case Query.Not not -> not.part() instanceof Query.Limit limit && isOfPath(limit) ? !holds(limit, path) : true;
            case Query.Limit limit -> switch (limit.kind()) {
                case UNDER -> Glob.ofPath(limit.glob()).matches(path);
                case TYPE -> Glob.ofName(limit.glob()).matches(PathKinds.type(path));
                case TRAIT -> PathKinds.traits(path).contains(limit.glob());
                case REPO, LABEL, BRANCH, EXCEPT -> true;
            };
            default -> true;
        };
    }

    private static boolean asksOfPaths(Query limits) {
        return switch (limits) {
            case Query.And and -> and.parts().stream().anyMatch(ComeAndGo::asksOfPaths);
            case Query.Or or -> or.parts().stream().anyMatch(ComeAndGo::asksOfPaths);
            case Query.Not not -> asksOfPaths(not.part());
            case Query.Limit limit -> isOfPath(limit);
            default -> false;
        };
    }

    private static boolean isOfPath(Query.Limit limit) {
        return limit.kind() == Query.LimitKind.UNDER || limit.kind() == Query.LimitKind.TYPE || limit.kind() == Query.LimitKind.TRAIT;
    }
}
