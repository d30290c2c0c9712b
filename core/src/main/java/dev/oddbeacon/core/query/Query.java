package dev.oddbeacon.core.query;

import dev.oddbeacon.core.query.expression.ExpressionParser;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.source.Region;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;

/**
 * What is asked, as a tree: what {@link ExpressionParser} reads, {@link ExpressionPrinter} writes and
 * {@link CompiledQuery} runs. Every reading becomes such a tree. Its leaves are of three families: clauses about text,
 * conditions on files, conditions on commits. A search for lines decides it file by file.
 */
public sealed interface Query
        permits Query.And,
                Query.Or,
                Query.Not,
                Query.Marked,
                Query.InRegion,
                Query.Holds,
                Query.Everything,
                TextClause,
                FileCondition,
                CommitCondition {
    /** @param parts at least two, none of them an And */
    record And(List<Query> parts) implements Query {
        public And {
            parts = List.copyOf(parts);
            assert parts.size() > 1 && parts.stream().noneMatch(And.class::isInstance) : parts;
        }
    }

    /** @param parts at least two, none of them an Or */
    record Or(List<Query> parts) implements Query {
        public Or {
            parts = List.copyOf(parts);
            assert parts.size() > 1 && parts.stream().noneMatch(Or.class::isInstance) : parts;
        }
    }

    record Not(Query part) implements Query {}

    /** Fixes how case counts for all texts below, whatever is set around them. */
    record Marked(Mark mark, Query part) implements Query {}

    /**
     * What is below, wholly in one of these regions.
     *
     * @param regions one or two
     */
    record InRegion(Set<Region> regions, Query part) implements Query {
        public InRegion {
            assert !regions.isEmpty() && regions.size() < Region.values().length : regions;
        }

        /** The region that is none of two. */
        public static Region others(Set<Region> two) {
            return EnumSet.complementOf(EnumSet.copyOf(two)).iterator().next();
        }

        /** Text outside of a region. */
        public static InRegion outside(Region region, Query part) {
            return new InRegion(Set.copyOf(EnumSet.complementOf(EnumSet.of(region))), part);
        }
    }

    /**
     * Files whose content satisfies this; none of its lines are shown for that.
     *
     * @param part text clauses, however they are joined
     */
    record Holds(Query part) implements Query {}

    /** Every file. */
    record Everything() implements Query {}

    enum Mark {
        EXACTLY,
        ANYCASE,
        WORD
    }

    @SuppressWarnings("ClassInitializationDeadlock") // nothing else makes one
    Query EVERYTHING = new Everything();

    static Query and(List<? extends Query> parts) {
        List<Query> flat = new ArrayList<>();
        for (Query part : parts) {
            if (part instanceof And and) {
                flat.addAll(and.parts);
            } else if (!(part instanceof Everything)) {
                flat.add(part);
            }
        }
        return flat.isEmpty() ? EVERYTHING : flat.size() == 1 ? flat.getFirst() : new And(flat);
    }

    /** @param parts not empty */
    static Query or(List<? extends Query> parts) {
        List<Query> flat = new ArrayList<>();
        for (Query part : parts) {
            if (part instanceof Or or) {
                flat.addAll(or.parts);
            } else {
                flat.add(part);
            }
        }
        return flat.size() == 1 ? flat.getFirst() : new Or(flat);
    }

    /** The direct children of a node. */
    default List<Query> children() {
        return switch (this) {
            case And and -> and.parts;
            case Or or -> or.parts;
            case Not not -> List.of(not.part);
            case Marked marked -> List.of(marked.part);
            case InRegion inRegion -> List.of(inRegion.part);
            case Holds holds -> List.of(holds.part);
            case TextClause.Near near -> List.of(near.left(), near.right());
            case TextClause.OnLine onLine -> List.of(onLine.left(), onLine.right());
            case CommitCondition.Mentions mentions -> List.of(mentions.part());
            case TextClause _, FileCondition _, CommitCondition _, Everything _ -> List.of();
        };
    }

    /**
     * The same where the subject is not lines: clauses that speak of content stand in {@code holds( )}.
     *
     * @param isContent tells such clauses
     */
    static Query besides(Query query, Predicate<Query> isContent) {
        return switch (query) {
            case Query clause when isContent.test(clause) -> new Holds(clause);
            case And and ->
                and(and.parts.stream().map(part -> besides(part, isContent)).toList());
            case Or or ->
                or(or.parts.stream().map(part -> besides(part, isContent)).toList());
            case Not not -> new Not(besides(not.part, isContent));
            case Marked marked -> new Marked(marked.mark, besides(marked.part, isContent));
            case InRegion _, Holds _, Everything _, TextClause _, FileCondition _, CommitCondition _ -> query;
        };
    }

    /** All conditions on files in the tree. */
    default List<FileCondition> conditions() {
        List<FileCondition> conditions = new ArrayList<>();
        if (this instanceof FileCondition condition) {
            conditions.add(condition);
        }
        children().forEach(child -> conditions.addAll(child.conditions()));
        return conditions;
    }

    /** Whether what it finds in a repository is the same whatever there is in others: uses are told by what those declare. */
    default boolean isOfEachRepository() {
        boolean isOfUses = this instanceof TextClause.Symbol symbol && symbol.role() != SymbolRole.DECLARATION;
        return !isOfUses && children().stream().allMatch(Query::isOfEachRepository);
    }

    /** Whether it asks when files changed, besides what they hold. */
    default boolean asksOfPasts() {
        return conditions().stream().anyMatch(FileCondition.Changed.class::isInstance);
    }

    /** Whether it asks of files alone, whatever their text: conditions, joined in any way. */
    default boolean isOfFiles() {
        return switch (this) {
            case FileCondition _ -> true;
            case And _, Or _, Not _ -> children().stream().allMatch(Query::isOfFiles);
            case Marked _, InRegion _, Holds _, Everything _, TextClause _, CommitCondition _ -> false;
        };
    }
}
