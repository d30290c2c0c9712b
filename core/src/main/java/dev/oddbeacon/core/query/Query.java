package dev.oddbeacon.core.query;

import dev.oddbeacon.core.source.Region;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;

/**
 * What is asked of lines, as a tree: what {@link ExpressionParser} reads, {@link ExpressionPrinter} writes and
 * {@link CompiledQuery} runs. Every reading becomes such a tree. It is decided file by file.
 */
public sealed interface Query {
    /** @param parts at least two, none of them an And */
    record And(List<Query> parts) implements Query {}

    /** @param parts at least two, none of them an Or */
    record Or(List<Query> parts) implements Query {}

    record Not(Query part) implements Query {}

    /** Literal text, which may span lines. */
    record Text(String text) implements Query {
        /** Text that was typed or pasted: CRLF is a line feed, and a last line break is dropped. */
        public static Text pasted(String text) {
            String lines = text.replace("\r\n", "\n");
            boolean drops = lines.length() > 1 && lines.endsWith("\n");
            return new Text(drops ? lines.substring(0, lines.length() - 1) : lines);
        }
    }

    /** Text in which {@code *} stands for any number of word parts and {@code ?} for one. */
    record Wildcard(String pattern) implements Query {}

    /** A regular expression, matched within a line. */
    record Pattern(String regex) implements Query {}

    /** A whole word of similar spelling. */
    record Like(String word) implements Query {}

    /** Two texts with at most so many words between them, in either order. */
    record Near(int words, Query left, Query right) implements Query {}

    /** Two texts on one line that do not overlap. */
    record OnLine(Query left, Query right) implements Query {}

    /** How the texts below are to be taken, whatever stands around. */
    record Marked(Mark mark, Query part) implements Query {}

    /**
     * What is below, wholly in one of these regions.
     *
     * @param regions one or two
     */
    record InRegion(Set<Region> regions, Query part) implements Query {
        /** The region that is none of two. */
        static Region others(Set<Region> two) {
            return EnumSet.complementOf(EnumSet.copyOf(two)).iterator().next();
        }

        /** Text outside of a region. */
        static InRegion outside(Region region, Query part) {
            return new InRegion(Set.copyOf(EnumSet.complementOf(EnumSet.of(region))), part);
        }
    }

    /**
     * Where a symbol stands.
     *
     * @param name see {@link SymbolName}
     */
    record Symbol(SymbolRole role, String name) implements Query {}

    /** What limits where to look. */
    record Limit(LimitKind kind, String glob) implements Query {}

    /**
     * These files and no others.
     *
     * @param files {@code repository/path}; not empty
     */
    record Listed(List<String> files) implements Query {}

    /**
     * Files whose content this holds for; none of its lines are shown for that.
     *
     * @param part text clauses, however they are joined
     */
    record Holds(Query part) implements Query {}

    /**
     * What is asked of commits.
     *
     * @param part a text
     */
    record OfCommits(Ask ask, Query part) implements Query {}

    /** Commits that changed a file at such a path. */
    record Touches(String glob) implements Query {}

    /**
     * When something was committed.
     *
     * @param day as {@link Days} reads it
     */
    record When(Time time, String day) implements Query {}

    /** Every file. */
    record Everything() implements Query {}

    /** What of a commit is asked: people, message, lines that came, lines that went. */
    enum Ask {
        BY, SAYS, ADDS, REMOVES
    }

    /** From the beginning of a day on, or before it: of commits, or of the last change of a file. */
    enum Time {
        AFTER, BEFORE, CHANGED_AFTER, CHANGED_BEFORE;

        public boolean isOfFiles() {
            return this == CHANGED_AFTER || this == CHANGED_BEFORE;
        }

        public boolean isAfter() {
            return this == AFTER || this == CHANGED_AFTER;
        }
    }

    enum Mark {
        EXACTLY, ANYCASE, WORD
    }

    enum LimitKind {
        REPO, LABEL, BRANCH, UNDER, TYPE, TRAIT, EXCEPT
    }

    Query EVERYTHING = new Everything();

    static Query and(List<Query> parts) {
        List<Query> flat = new ArrayList<>();
        for (Query part : parts) {
            switch (part) {
                case And and -> flat.addAll(and.parts);
                case Everything _ -> { }
                default -> flat.add(part);
            }
        }
        return flat.isEmpty() ? EVERYTHING : flat.size() == 1 ? flat.getFirst() : new And(List.copyOf(flat));
    }

    /** @param parts not empty */
    static Query or(List<Query> parts) {
        List<Query> flat = new ArrayList<>();
        for (Query part : parts) {
            if (part instanceof Or or) {
                flat.addAll(or.parts);
            } else {
                flat.add(part);
            }
        }
        return flat.size() == 1 ? flat.getFirst() : new Or(List.copyOf(flat));
    }

    /** What stands directly below. */
    default List<Query> children() {
        return switch (this) {
            case And and -> and.parts;
            case Or or -> or.parts;
            case Not not -> List.of(not.part);
            case Near near -> List.of(near.left, near.right);
            case OnLine onLine -> List.of(onLine.left, onLine.right);
            case Marked marked -> List.of(marked.part);
            case InRegion inRegion -> List.of(inRegion.part);
            case Holds holds -> List.of(holds.part);
            case OfCommits ofCommits -> List.of(ofCommits.part);
            case Text _, Wildcard _, Pattern _, Like _, Symbol _, Limit _, Listed _, Touches _, When _, Everything _ -> List.of();
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
            case And and -> new And(and.parts.stream().map(part -> besides(part, isContent)).toList());
            case Or or -> new Or(or.parts.stream().map(part -> besides(part, isContent)).toList());
            case Not not -> new Not(besides(not.part, isContent));
            case Marked marked -> new Marked(marked.mark, besides(marked.part, isContent));
            default -> query;
        };
    }

    /** All limits of the tree. */
    default List<Limit> limits() {
        List<Limit> limits = new ArrayList<>();
        if (this instanceof Limit limit) {
            limits.add(limit);
        }
        children().forEach(child -> limits.addAll(child.limits()));
        return limits;
    }
}
