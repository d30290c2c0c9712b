package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.ExpressionPrinter;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextMatcher;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** What is asked of commits, ready to be run. A commit is found or not; which of its lines are shown depends on the clauses that are wanted. */
sealed interface CommitNode {
    record And(List<CommitNode> parts) implements CommitNode {}

    record Or(List<CommitNode> parts) implements CommitNode {}

    record Not(CommitNode part) implements CommitNode {}

    /** Where a text is looked for. */
    enum Place {
        /** The message and the people. */
        ANY, MESSAGE, PEOPLE, ADDED, REMOVED
    }

    record Text(Place place, TextMatcher matcher) implements CommitNode {}

    /** A file at such a path was changed. */
    record Touches(Glob glob) implements CommitNode {}

    record When(boolean after, long seconds) implements CommitNode {}

    /** Of the repository or branch, or its files. */
    record Limit(Query.LimitKind kind, Glob glob) implements CommitNode {}

    /** A file was changed of which the present content holds for this. */
    record Holds(Query part) implements CommitNode {}

    record Everything() implements CommitNode {}

    /** @throws InvalidQueryException if something is asked that does not make sense of commits */
    static CommitNode of(Query query, CaseMode caseMode) {
        return of(Query.besides(query, clause -> clause instanceof Query.InRegion || clause instanceof Query.Symbol), caseMode, List.of(), Place.ANY);
    }

    private static CommitNode of(Query query, CaseMode caseMode, List<Query.Mark> marks, Place place) {
        return switch (query) {
            case Query.And and -> new And(and.parts().stream().map(part -> of(part, caseMode, marks, place)).toList());
            case Query.Or or -> new Or(or.parts().stream().map(part -> of(part, caseMode, marks, place)).toList());
            case Query.Not not -> new Not(of(not.part(), caseMode, marks, place));
            case Query.Marked marked -> {
                List<Query.Mark> inner = new ArrayList<>(marks);
                inner.add(marked.mark());
                yield of(marked.part(), caseMode, inner, place);
            }
            case Query.OfCommits asked -> of(asked.part(), caseMode, marks, switch (asked.ask()) {
                case BY -> Place.PEOPLE;
                case SAYS -> Place.MESSAGE;
                case ADDS -> Place.ADDED;
                case REMOVES -> Place.REMOVED;
            });
            case Query.Touches touches -> new Touches(Glob.ofPath(touches.glob()));
            case Query.When dated when dated.time().isOfFiles() -> throw new InvalidQueryException(ExpressionPrinter.print(query) + " is about files. Of commits, after( ) and before( ) say when.");
            case Query.When dated -> new When(dated.time().isAfter(), Days.start(dated.day(), Instant.now()).getEpochSecond());
            case Query.Limit limit when limit.kind() == Query.LimitKind.EXCEPT -> new Everything(); // sets take files out of searches, not what was done to them
            case Query.Limit limit when limit.kind() == Query.LimitKind.UNDER -> new Touches(Glob.ofPath(limit.glob()));
            case Query.Limit limit -> new Limit(limit.kind(), Glob.ofName(limit.glob()));
            case Query.Listed listed -> new Or(listed.files().stream().map(CommitNode::file).toList());
            case Query.Holds holds -> new Holds(holds.part());
            case Query.Everything _ -> new Everything();
            default -> {
                Query marked = query;
                for (Query.Mark mark : marks.reversed()) {
                    marked = new Query.Marked(mark, marked);
                }
                List<TextMatcher> matchers = CompiledQuery.of(marked, caseMode).clauses();
                yield new Text(place, matchers.getFirst());
            }
        };
    }

    /** @param file repository/path */
    private static CommitNode file(String file) {
        int slash = file.indexOf('/');
        return new And(List.of(new Limit(Query.LimitKind.REPO, Glob.ofName(escaped(file.substring(0, Math.max(0, slash))))), new Touches(Glob.ofPath("/" + escaped(file.substring(slash + 1))))));
    }

    private static String escaped(String text) {
        return text.replaceAll("[\\[*?]", "[$0]");
    }

    /** Clauses whose matches are shown, in some places: those under no "not". */
    default List<TextMatcher> wanted(List<Place> places) {
        return switch (this) {
            case And and -> and.parts.stream().flatMap(part -> part.wanted(places).stream()).toList();
            case Or or -> or.parts.stream().flatMap(part -> part.wanted(places).stream()).toList();
            case Text text when places.contains(text.place) -> List.of(text.matcher);
            default -> List.of();
        };
    }

    /** What it costs to find out, roughly, for deciding what to ask first. */
    default int cost() {
        return switch (this) {
            case Everything _, Limit _ -> 0;
            case When _ -> 1;
            case Touches _ -> 2;
            case Holds _ -> 4;
            case Text text -> text.place == Place.PEOPLE ? 1 : text.place == Place.ADDED || text.place == Place.REMOVED ? 5 : 3;
            case Not not -> not.part.cost();
            case And and -> and.parts.stream().mapToInt(CommitNode::cost).max().orElse(0);
            case Or or -> or.parts.stream().mapToInt(CommitNode::cost).max().orElse(0);
        };
    }
}
