package dev.oddbeacon.core.query;

import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** Writes a query as an expression. What it writes, {@link ExpressionParser} reads as the same tree. */
public final class ExpressionPrinter {
    private ExpressionPrinter() {}

    public static String print(Query query) {
        return switch (query) {
            case Query.Or or -> or.parts().stream().map(ExpressionPrinter::print).collect(Collectors.joining(" or "));
            case Query.And and -> and.parts().stream().map(ExpressionPrinter::operand).collect(Collectors.joining(" "));
            case Query.Not not -> "not " + (not.part() instanceof Query.And ? "(" + print(not.part()) + ")" : operand(not.part()));
            case Query.Text text -> isBareWord(text.text()) ? text.text() : quoted(text.text());
            case Query.Wildcard wildcard -> wildcard.pattern();
            case Query.Pattern pattern -> "/" + slashed(pattern.regex()) + "/";
            case Query.Like like -> call("like", List.of(argument(like.word())));
            case Query.Near near -> call("near", List.of(String.valueOf(near.words()), print(near.left()), print(near.right())));
            case Query.OnLine onLine -> call("line", List.of(print(onLine.left()), print(onLine.right())));
            case Query.Marked marked -> call(lower(marked.mark()), List.of(print(marked.part())));
            case Query.InRegion inRegion -> inRegion.regions().size() == 1 ? call(lower(inRegion.regions().iterator().next()), List.of(print(inRegion.part())))
                    : call("outside", List.of(lower(Query.InRegion.others(inRegion.regions())), print(inRegion.part())));
            case Query.Symbol symbol -> call(switch (symbol.role()) {
                case DECLARATION -> "declares";
                case USE -> "uses";
                case ANY -> "symbol";
            }, List.of(argument(symbol.name())));
            case Query.Holds holds -> call("holds", List.of(print(holds.part())));
            case Query.OfCommits ofCommits -> call(lower(ofCommits.ask()), List.of(print(ofCommits.part())));
            case Query.Touches touches -> call("touches", List.of(argument(touches.glob())));
            case Query.When dated -> dated.time().isOfFiles() ? "changed(" + (dated.time().isAfter() ? "after" : "before") + ": " + dated.day() + ")" : call(lower(dated.time()), List.of(dated.day()));
            case Query.Limit limit -> call(lower(limit.kind()), List.of(argument(limit.glob())));
            case Query.Listed listed -> call("files", listed.files().stream().map(ExpressionPrinter::argument).toList());
            case Query.Everything _ -> "";
        };
    }

    private static String operand(Query query) {
        return query instanceof Query.Or ? "(" + print(query) + ")" : print(query);
    }

    private static String call(String name, List<String> arguments) {
        return name + "(" + String.join(", ", arguments) + ")";
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    /** A word or glob as the argument of a clause, where * and ? need no quotes. */
    private static String argument(String text) {
        return isBare(text) && !ExpressionParser.isOperator(text) ? text : quoted(text);
    }

    private static boolean isBareWord(String text) {
        return isBare(text) && !ExpressionParser.isOperator(text) && !text.startsWith("/") && text.indexOf('*') < 0 && text.indexOf('?') < 0;
    }

    private static boolean isBare(String text) {
        return !text.isEmpty() && text.codePoints().noneMatch(c -> ExpressionParser.endsWord(c, true) || c == '"' || Character.isISOControl(c));
    }

    static String quoted(String text) {
        return "\"" + text.replace("\\", "\\\\").replace("\"", "\\\"").replace("\t", "\\t").replace("\n", "\\n").replace("\r", "\\r") + "\"";
    }

    /** A slash would end the expression; within \Q and \E nothing can be escaped, so they are left and taken up again. */
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
