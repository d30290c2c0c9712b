package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Patterns;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.text.regex.Regex;
import dev.oddbeacon.core.text.regex.RegexSyntaxException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;

/**
 * A {@link Query} ready to be run: its text clauses as matchers, and how they are joined, with every "not" pushed
 * down to the clauses. {@code not (a or not b)} becomes {@code (not a) and b}, so b is a clause whose lines are
 * shown. Immutable.
 *
 * @param clauses by number
 * @param branches whether a clause is about branches; if none is, only default branches are searched
 */
public record CompiledQuery(Node root, List<TextMatcher> clauses, boolean branches) {
    /** The structure that joins the compiled clauses. */
    public sealed interface Node {
        record And(List<Node> parts) implements Node {}

        record Or(List<Node> parts) implements Node {}

        /** @param wanted whether the clause must match, or must not */
        record Clause(int number, boolean wanted) implements Node {}

        /** @param wanted whether the condition must hold, or must not */
        record Condition(FileCondition condition, boolean wanted) implements Node {}

        /**
         * @param part what is asked of the content of files
         * @param wanted whether it must hold, or must not
         */
        record Holds(CompiledQuery part, boolean wanted) implements Node {}

        /**
         * What became of a {@link Holds} in a view.
         *
         * @param files by branch number, the numbers of the files it holds for
         */
        record Found(List<BitSet> files, boolean wanted) implements Node {}

        record Everything(boolean wanted) implements Node {}
    }

    /** @throws InvalidQueryException if a regular expression in it is not valid */
    public static CompiledQuery of(Query query, CaseMode caseMode) {
        List<TextMatcher> clauses = new ArrayList<>();
        Node root;
        try {
            root = node(query, true, new How(caseMode, false, List.of()), clauses);
        } catch (RegexSyntaxException e) { // valid as it was read, but too large once case is ignored, for example
            throw new InvalidQueryException(e.getMessage());
        }
        boolean branches = query.conditions().stream().anyMatch(FileCondition.OnBranch.class::isInstance);
        return new CompiledQuery(root, List.copyOf(clauses), branches);
    }

    /** Whether any clause shows lines; if none does, the search is for files. */
    public boolean showsLines() {
        return showsLines(root);
    }

    private static boolean showsLines(Node node) {
        return switch (node) {
            case Node.And and -> and.parts.stream().anyMatch(CompiledQuery::showsLines);
            case Node.Or or -> or.parts.stream().anyMatch(CompiledQuery::showsLines);
            case Node.Clause clause -> clause.wanted;
            case Node.Condition _, Node.Holds _, Node.Found _, Node.Everything _ -> false;
        };
    }

    /** The clauses that must match somewhere, in the order in which they are written. */
    public List<TextMatcher> wantedClauses() {
        List<TextMatcher> wanted = new ArrayList<>();
        addWanted(root, wanted);
        return wanted;
    }

    private void addWanted(Node node, List<TextMatcher> wanted) {
        switch (node) {
            case Node.And and -> and.parts.forEach(part -> addWanted(part, wanted));
            case Node.Or or -> or.parts.forEach(part -> addWanted(part, wanted));
            case Node.Clause clause -> {
                if (clause.wanted) {
                    wanted.add(clauses.get(clause.number));
                }
            }
            case Node.Condition _, Node.Holds _, Node.Found _, Node.Everything _ -> {}
        }
    }

    /** Whether something is asked of the content of files that shows no lines. */
    public boolean asksForContent() {
        return asksForContent(root);
    }

    private static boolean asksForContent(Node node) {
        return switch (node) {
            case Node.And and -> and.parts.stream().anyMatch(CompiledQuery::asksForContent);
            case Node.Or or -> or.parts.stream().anyMatch(CompiledQuery::asksForContent);
            case Node.Holds _ -> true;
            case Node.Clause _, Node.Condition _, Node.Found _, Node.Everything _ -> false;
        };
    }

    /** A copy with some leaves replaced. */
    public CompiledQuery with(UnaryOperator<Node> leaves) {
        return new CompiledQuery(replaced(root, leaves), clauses, branches);
    }

    private static Node replaced(Node node, UnaryOperator<Node> leaves) {
        return switch (node) {
            case Node.And and ->
                new Node.And(
                        and.parts.stream().map(part -> replaced(part, leaves)).toList());
            case Node.Or or ->
                new Node.Or(
                        or.parts.stream().map(part -> replaced(part, leaves)).toList());
            case Node.Clause _, Node.Condition _, Node.Holds _, Node.Found _, Node.Everything _ -> leaves.apply(node);
        };
    }

    private record How(CaseMode caseMode, boolean word, List<Set<Region>> regions) {
        How in(Set<Region> region) {
            List<Set<Region>> all = new ArrayList<>(regions);
            all.add(region);
            return new How(caseMode, word, List.copyOf(all));
        }

        How marked(Query.Mark mark) {
            return switch (mark) {
                case EXACTLY -> new How(CaseMode.MATCH, word, regions);
                case ANYCASE -> new How(CaseMode.IGNORE, word, regions);
                case WORD -> new How(caseMode, true, regions);
            };
        }
    }

    private static Node node(Query query, boolean wanted, How how, List<TextMatcher> clauses) {
        return switch (query) {
            case Query.And and -> join(and.parts(), wanted, wanted, how, clauses);
            case Query.Or or -> join(or.parts(), !wanted, wanted, how, clauses);
            case Query.Not not -> node(not.part(), !wanted, how, clauses);
            case Query.Marked marked -> node(marked.part(), wanted, how.marked(marked.mark()), clauses);
            case Query.InRegion inRegion -> node(inRegion.part(), wanted, how.in(inRegion.regions()), clauses);
            case FileCondition condition -> new Node.Condition(condition, wanted);
            case Query.Holds holds -> {
                List<TextMatcher> inside = new ArrayList<>();
                Node part = node(holds.part(), true, how, inside);
                yield new Node.Holds(new CompiledQuery(part, List.copyOf(inside), false), wanted);
            }
            case CommitCondition condition ->
                throw new InvalidQueryException(
                        ExpressionPrinter.print(condition) + " is about commits. Search for commits, or leave it out.");
            case Query.Everything _ -> new Node.Everything(wanted);
            case TextClause clause -> {
                TextMatcher matcher = matcher(clause, how);
                for (Set<Region> regions : how.regions) {
                    matcher = new InRegionMatcher(regions, matcher);
                }
                clauses.add(matcher);
                yield new Node.Clause(clauses.size() - 1, wanted);
            }
        };
    }

    private static Node join(List<Query> parts, boolean isAnd, boolean wanted, How how, List<TextMatcher> clauses) {
        List<Node> nodes = new ArrayList<>();
        for (Query part : parts) {
            Node node = node(part, wanted, how, clauses);
            switch (node) {
                case Node.And and when isAnd -> nodes.addAll(and.parts);
                case Node.Or or when !isAnd -> nodes.addAll(or.parts);
                default -> nodes.add(node);
            }
        }
        return isAnd ? new Node.And(nodes) : new Node.Or(nodes);
    }

    /** A text, as it stands by itself or in near( ) and line( ). */
    private static TextMatcher matcher(Query query, How how) {
        return switch (query) {
            case TextClause clause -> matcher(clause, how);
            case Query.Or or ->
                new AnyOfMatcher(
                        or.parts().stream().map(part -> matcher(part, how)).toList());
            case Query.Marked marked -> matcher(marked.part(), how.marked(marked.mark()));
            case Query.InRegion inRegion -> new InRegionMatcher(inRegion.regions(), matcher(inRegion.part(), how));
            case Query.And _, Query.Not _, Query.Holds _, Query.Everything _, FileCondition _, CommitCondition _ ->
                throw new InvalidQueryException(
                        ExpressionPrinter.print(query)
                                + " cannot stand in near( ) or line( ), which take words, phrases and regular expressions, joined by or.");
        };
    }

    private static TextMatcher matcher(TextClause clause, How how) {
        return switch (clause) {
            case TextClause.Text text -> new PlainMatcher(text.text(), how.caseMode, how.word);
            case TextClause.Pattern pattern -> regex(Patterns.regex(pattern.regex(), how.caseMode), how);
            case TextClause.Wildcard wildcard -> regex(Patterns.wildcard(wildcard.pattern(), how.caseMode), how);
            case TextClause.Like like -> new LikeMatcher(like.word());
            case TextClause.Filled filled -> new FilledMatcher(filled.sentence(), how.caseMode);
            case TextClause.NumberIn number -> new NumberMatcher(number.bounds());
            case TextClause.Near near ->
                new NearMatcher(near.words(), matcher(near.left(), how), matcher(near.right(), how));
            case TextClause.OnLine onLine ->
                new OnLineMatcher(matcher(onLine.left(), how), matcher(onLine.right(), how));
            case TextClause.Symbol symbol ->
                new SymbolMatcher(symbol.role(), SymbolName.of(symbol.name()), how.caseMode);
            case TextClause.OfShape ofShape ->
                new ShapeMatcher(ofShape.shape().byLanguage(how.caseMode == CaseMode.IGNORE));
        };
    }

    private static TextMatcher regex(Regex tree, How how) {
        return new RegexMatcher(how.word ? Regex.whole(tree) : tree);
    }

    /** The plan for the index, in words. */
    public String plan() {
        return plan(root);
    }

    private String plan(Node node) {
        return switch (node) {
            case Node.And and ->
                and.parts.stream()
                        .map(this::plan)
                        .filter(text -> !text.isEmpty())
                        .collect(Collectors.joining(" and "));
            case Node.Or or ->
                "("
                        + or.parts.stream()
                                .map(part -> plan(part).isEmpty() ? "anything" : plan(part))
                                .collect(Collectors.joining(" or "))
                        + ")";
            case Node.Clause clause ->
                clause.wanted ? clauses.get(clause.number).plan().describe() : "";
            case Node.Condition _, Node.Holds _, Node.Found _, Node.Everything _ -> "";
        };
    }
}
