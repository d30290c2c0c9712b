package dev.oddbeacon.core.query.expression;

import dev.oddbeacon.core.query.Bounds;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.shape.Shape;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Writes a query as an expression. What it writes, {@link ExpressionParser} reads as the same tree. */
public final class ExpressionPrinter {
    private ExpressionPrinter() {}

    public static String print(Query query) {
        return switch (query) {
            case Query.Or or ->
                or.parts().stream().map(ExpressionPrinter::print).collect(Collectors.joining(" or "));
            case Query.And and ->
                and.parts().stream().map(ExpressionPrinter::operand).collect(Collectors.joining(" "));
            case Query.Not not ->
                "not " + (not.part() instanceof Query.And ? "(" + print(not.part()) + ")" : operand(not.part()));
            case Query.Marked marked -> call(lower(marked.mark()), List.of(print(marked.part())));
            case Query.InRegion inRegion ->
                inRegion.regions().size() == 1
                        ? call(lower(inRegion.regions().iterator().next()), List.of(print(inRegion.part())))
                        : call(
                                "outside",
                                List.of(lower(Query.InRegion.others(inRegion.regions())), print(inRegion.part())));
            case Query.Holds holds -> call("holds", List.of(print(holds.part())));
            case Query.Everything _ -> "";
            case TextClause clause -> print(clause);
            case FileCondition condition -> print(condition);
            case CommitCondition condition -> print(condition);
        };
    }

    private static String print(TextClause clause) {
        return switch (clause) {
            case TextClause.Text text -> isBareWord(text.text()) ? text.text() : ExpressionSyntax.quoted(text.text());
            case TextClause.Wildcard wildcard -> wildcard.pattern();
            case TextClause.Pattern pattern -> "/" + slashed(pattern.regex()) + "/";
            case TextClause.Like like -> call("like", List.of(argument(like.word())));
            case TextClause.Filled filled -> call("filled", List.of(argument(filled.sentence())));
            case TextClause.NumberIn number -> call("number", bounds(number.bounds()));
            case TextClause.Near near ->
                call("near", List.of(String.valueOf(near.words()), print(near.left()), print(near.right())));
            case TextClause.OnLine onLine -> call("line", List.of(print(onLine.left()), print(onLine.right())));
            case TextClause.Symbol symbol ->
                call(
                        switch (symbol.role()) {
                            case DECLARATION -> "declares";
                            case USE -> "uses";
                            case ANY -> "symbol";
                        },
                        List.of(argument(symbol.name())));
            case TextClause.OfShape ofShape -> call("shape", shape(ofShape.shape()));
        };
    }

    private static List<String> bounds(Bounds bounds) {
        return Stream.concat(
                        bounds.from().stream().map(low -> "from: " + low.toPlainString()),
                        bounds.to().stream().map(high -> "to: " + high.toPlainString()))
                .toList();
    }

    private static List<String> shape(Shape shape) {
        return Stream.concat(
                        Stream.of(CodeInShape.written(shape.code())),
                        shape.without().stream().map(part -> "without: " + CodeInShape.written(part)))
                .toList();
    }

    private static String print(FileCondition condition) {
        return switch (condition) {
            case FileCondition.Repository repository -> call("repo", repository.name());
            case FileCondition.Label label -> call("label", label.label());
            case FileCondition.OnBranch branch -> call("branch", branch.name());
            case FileCondition.Under under -> call("under", under.path());
            case FileCondition.Type type -> call("type", type.type());
            case FileCondition.HasTrait trait -> call("trait", List.of(argument(trait.label())));
            case FileCondition.Except except -> call("except", List.of(argument(except.set())));
            case FileCondition.Listed listed ->
                call(
                        "files",
                        listed.files().stream().map(ExpressionPrinter::argument).toList());
            case FileCondition.Changed changed ->
                call("changed", bounds("after", changed.after(), "before", changed.before()));
            case FileCondition.Size size ->
                call("size", bounds("over", bytes(size.over()), "under", bytes(size.under())));
        };
    }

    private static String print(CommitCondition condition) {
        return switch (condition) {
            case CommitCondition.Mentions mentions -> call(lower(mentions.where()), List.of(print(mentions.part())));
            case CommitCondition.Touches touches -> call("touches", touches.path());
            case CommitCondition.Committed committed -> call(lower(committed.side()), List.of(committed.day()));
        };
    }

    /** Named arguments, as in {@code after: 2026-01-31}; those that are absent are left out. */
    private static List<String> bounds(String low, Optional<String> from, String high, Optional<String> to) {
        return Stream.concat(
                        from.stream().map(value -> low + ": " + value),
                        to.stream().map(value -> high + ": " + value))
                .toList();
    }

    private static Optional<String> bytes(OptionalLong bytes) {
        return bytes.isEmpty() ? Optional.empty() : Optional.of(ByteSizes.print(bytes.getAsLong()));
    }

    private static String operand(Query query) {
        return query instanceof Query.Or ? "(" + print(query) + ")" : print(query);
    }

    private static String call(String name, Glob argument) {
        return call(name, List.of(argument(argument.toString())));
    }

    private static String call(String name, List<String> arguments) {
        return name + "(" + String.join(", ", arguments) + ")";
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    /** A word or glob as the argument of a clause, where * and ? need no quotes. */
    private static String argument(String text) {
        return isBare(text) && !ExpressionSyntax.isOperator(text) ? text : ExpressionSyntax.quoted(text);
    }

    private static boolean isBareWord(String text) {
        return isBare(text)
                && !ExpressionSyntax.isOperator(text)
                && !text.startsWith("/")
                && text.indexOf('*') < 0
                && text.indexOf('?') < 0;
    }

    private static boolean isBare(String text) {
        return !text.isEmpty()
                && text.codePoints()
                        .noneMatch(c -> ExpressionSyntax.endsWord(c, true) || c == '"' || Character.isISOControl(c));
    }

    /**
     * A slash would end the expression; within \Q and \E nothing can be escaped, so they are left and taken up again.
     */
    private static String slashed(String regex) {
        StringBuilder result = new StringBuilder();
        boolean literal = false;
        for (int i = 0; i < regex.length(); i++) {
            char c = regex.charAt(i);
            boolean pair = c == '\\' && i + 1 < regex.length();
            if (literal && regex.startsWith("\\E", i)) {
                literal = false;
                result.append("\\E");
                i++;
            } else if (c == '/') {
                result.append(literal ? "\\E\\/\\Q" : "\\/");
            } else if (pair && !literal) {
                literal = regex.charAt(i + 1) == 'Q';
                result.append(c).append(regex.charAt(++i));
            } else {
                result.append(c);
            }
        }
        return result.toString();
    }
}
