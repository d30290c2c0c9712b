package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.TextMatcher;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/**
 * What is asked of commits, ready to be run. A commit is found or not; which of its lines are shown depends on the
 * clauses that are wanted.
 */
sealed interface CommitNode {
    record And(List<CommitNode> parts) implements CommitNode {}

    record Or(List<CommitNode> parts) implements CommitNode {}

    record Not(CommitNode part) implements CommitNode {}

    /** The part of a commit in which a text is looked for. */
    enum Place {
        /** The message and the people. */
        ANY,
        MESSAGE,
        PEOPLE,
        ADDED,
        REMOVED
    }

    record Text(Place place, TextMatcher matcher) implements CommitNode {}

    /** A file at such a path was changed. */
    record Touches(Glob path) implements CommitNode {}

    /** A file that satisfies a condition was changed; see {@link PastPath} for files that are gone. */
    record ChangesFile(FileCondition condition) implements CommitNode {}

    record When(boolean after, long seconds) implements CommitNode {}

    /** A condition on the repository, its labels or its branch. */
    record Belongs(FileCondition condition) implements CommitNode {}

    /** A file was changed of which the present content holds for this. */
    record Holds(Query part) implements CommitNode {}

    record Everything() implements CommitNode {}

    /** @param now the moment from which days are counted back */
    static CommitNode of(Query query, CaseMode caseMode, Instant now) {
        return new Reader(caseMode, now)
                .node(
                        Query.besides(
                                query,
                                clause -> clause instanceof Query.InRegion || clause instanceof TextClause.OfCode),
                        List.of(),
                        Place.ANY);
    }

    /** Makes nodes of a query. */
    record Reader(CaseMode caseMode, Instant now) {
        private CommitNode node(Query query, List<Query.Mark> marks, Place place) {
            return switch (query) {
                case Query.And and ->
                    new And(and.parts().stream()
                            .map(part -> node(part, marks, place))
                            .toList());
                case Query.Or or ->
                    new Or(or.parts().stream()
                            .map(part -> node(part, marks, place))
                            .toList());
                case Query.Not not -> new Not(node(not.part(), marks, place));
                case Query.Marked marked -> {
                    List<Query.Mark> inner = new ArrayList<>(marks);
                    inner.add(marked.mark());
                    yield node(marked.part(), inner, place);
                }
                case Query.InRegion inRegion -> new Holds(inRegion);
                case Query.Holds holds -> new Holds(holds.part());
                case Query.Everything _ -> new Everything();
                case TextClause clause -> {
                    Query marked = clause;
                    for (Query.Mark mark : marks.reversed()) {
                        marked = new Query.Marked(mark, marked);
                    }
                    yield new Text(
                            place, CompiledQuery.of(marked, caseMode).clauses().getFirst());
                }
                case FileCondition condition -> node(condition);
                case CommitCondition condition -> node(condition, marks);
            };
        }

        private CommitNode node(FileCondition condition) {
            return switch (condition) {
                case FileCondition.Repository _, FileCondition.Label _, FileCondition.OnBranch _ ->
                    new Belongs(condition);
                case FileCondition.Except _ ->
                    new Everything(); // sets take files out of searches, not what was done to them
                case FileCondition.Under _,
                        FileCondition.Listed _,
                        FileCondition.Type _,
                        FileCondition.HasTrait _,
                        FileCondition.Changed _,
                        FileCondition.Size _ -> new ChangesFile(condition);
            };
        }

        private CommitNode node(CommitCondition condition, List<Query.Mark> marks) {
            return switch (condition) {
                case CommitCondition.Mentions mentions ->
                    node(
                            mentions.part(),
                            marks,
                            switch (mentions.where()) {
                                case BY -> Place.PEOPLE;
                                case SAYS -> Place.MESSAGE;
                                case ADDS -> Place.ADDED;
                                case REMOVES -> Place.REMOVED;
                            });
                case CommitCondition.Touches touches -> new Touches(touches.path());
                case CommitCondition.Committed committed ->
                    new When(
                            committed.side() == CommitCondition.Side.AFTER,
                            Days.start(committed.day(), now).getEpochSecond());
            };
        }
    }

    /** Clauses whose matches are shown, in some places: those under no "not". */
    default List<TextMatcher> wanted(List<Place> places) {
        return switch (this) {
            case And and ->
                and.parts.stream().flatMap(part -> part.wanted(places).stream()).toList();
            case Or or ->
                or.parts.stream().flatMap(part -> part.wanted(places).stream()).toList();
            case Text text when places.contains(text.place) -> List.of(text.matcher);
            case Text _, Not _, Touches _, ChangesFile _, When _, Belongs _, Holds _, Everything _ -> List.of();
        };
    }

    /** Rough cost of evaluating the node, for deciding what to evaluate first. */
    default int cost() {
        return switch (this) {
            case Everything _, Belongs _ -> 0;
            case When _ -> 1;
            case Touches _, ChangesFile _ -> 2;
            case Holds _ -> 4;
            case Text text ->
                text.place == Place.PEOPLE ? 1 : text.place == Place.ADDED || text.place == Place.REMOVED ? 5 : 3;
            case Not not -> not.part.cost();
            case And and -> and.parts.stream().mapToInt(CommitNode::cost).max().orElse(0);
            case Or or -> or.parts.stream().mapToInt(CommitNode::cost).max().orElse(0);
        };
    }
}
