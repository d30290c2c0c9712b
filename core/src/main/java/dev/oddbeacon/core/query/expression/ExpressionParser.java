package dev.oddbeacon.core.query.expression;

import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.TextClause;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Reads the expression language, by recursive descent. A mistake does not end it: it is noted with its place, and
 * reading goes on, so that half an expression is a query already, and all mistakes are told at once.
 *
 * <pre>
 *   expression  alternative { "or" alternative }
 *   alternative operand { ["and"] operand }
 *   operand     "not" operand | "(" expression ")" | word | "phrase" | /regex/ | name "(" arguments ")"
 * </pre>
 */
public final class ExpressionParser extends ClauseParser {
    private ExpressionParser(String text) {
        super(text);
    }

    /** @param mistakes in the order of their places; empty if the expression is right */
    public record Parsed(Query query, List<Mistake> mistakes) {}

    public static Parsed parse(String text) {
        ExpressionParser parser = new ExpressionParser(text);
        Query query = parser.expression();
        while (parser.at < text.length() && parser.depth >= 0) {
            parser.mistake(
                    "This ) closes nothing.",
                    parser.at,
                    1,
                    "put it in quotes if it is text",
                    Optional.of(parser.without(parser.at, 1)));
            parser.at++;
            query = Query.and(List.of(query, parser.expression()));
        }
        return new Parsed(query, List.copyOf(parser.mistakes));
    }

    @Override
    Query expression() {
        List<Query> alternatives = new ArrayList<>();
        Optional<Query> first = alternative();
        first.ifPresent(alternatives::add);
        while (word().equalsIgnoreCase("or")) {
            int operator = at;
            if (alternatives.isEmpty()) {
                mistake(
                        "There is nothing before this \"or\".",
                        operator,
                        2,
                        "write what should be found instead",
                        Optional.of(without(operator, 2)));
            }
            at += 2;
            Optional<Query> next = alternative();
            if (next.isEmpty()) {
                missing("There is nothing after this \"or\".", operator, 2);
            }
            next.ifPresent(alternatives::add);
        }
        List<Query> right = alternatives.stream()
                .filter(alternative -> !(alternative instanceof Query.Everything))
                .toList();
        return right.isEmpty() ? Query.EVERYTHING : Query.or(right);
    }

    private Optional<Query> alternative() {
        List<Query> operands = new ArrayList<>();
        while (true) {
            String word = word();
            if (word.equalsIgnoreCase("and")) {
                int operator = at;
                if (operands.isEmpty()) {
                    mistake(
                            "There is nothing before this \"and\".",
                            operator,
                            3,
                            "write what should be found as well",
                            Optional.of(without(operator, 3)));
                }
                at += 3;
                boolean ends = isAtEnd() || word().equalsIgnoreCase("or") || word().equalsIgnoreCase("and");
                if (ends) {
                    missing("There is nothing after this \"and\".", operator, 3);
                }
                continue;
            }
            if (word.equalsIgnoreCase("or") || isAtEnd()) {
                return operands.isEmpty() ? Optional.empty() : Optional.of(Query.and(operands));
            }
            operands.add(operand().orElse(Query.EVERYTHING)); // what is wrong still stands there
        }
    }

    private Optional<Query> operand() {
        if (++clauses > MOST_CLAUSES && clauses == MOST_CLAUSES + 1) {
            mistake(
                    "The expression has more than " + MOST_CLAUSES + " clauses.",
                    at,
                    text.length() - at,
                    "search in several steps",
                    Optional.empty());
        }
        if (clauses > MOST_CLAUSES) {
            at = text.length();
            return Optional.empty();
        }
        int start = at;
        char c = text.charAt(at);
        if (c == '(') {
            return parenthesised(start);
        }
        if (c == '"') {
            String phrase = phrase();
            return phrase.isEmpty() ? Optional.empty() : Optional.of(new TextClause.Text(phrase));
        }
        if (c == '/') {
            return regex();
        }
        String word = word();
        at += word.length();
        boolean isCall = at < text.length() && text.charAt(at) == '(';
        if (word.equalsIgnoreCase("not")) {
            return negated(start);
        }
        if (isCall) {
            return call(word, start);
        }
        return Optional.of(
                word.indexOf('*') >= 0 || word.indexOf('?') >= 0 ? wildcard(word, start) : new TextClause.Text(word));
    }

    private Query wildcard(String word, int start) {
        if (word.chars().allMatch(c -> c == '*' || c == '?')) {
            mistake(
                    word + " alone would match every word.",
                    start,
                    word.length(),
                    "put it in quotes if it is text",
                    Optional.of(replaced(start, word.length(), '"' + word + '"')));
        }
        return new TextClause.Wildcard(word);
    }

    private Optional<Query> negated(int start) {
        if (isAtEnd() || word().equalsIgnoreCase("or") || word().equalsIgnoreCase("and")) {
            missing("There is nothing after this \"not\".", start, 3);
            return Optional.empty();
        }
        if (tooDeep()) {
            return Optional.empty();
        }
        depth++;
        Optional<Query> part = operand();
        depth--;
        return part.map(Query.Not::new);
    }

    private Optional<Query> parenthesised(int start) {
        if (tooDeep()) {
            return Optional.empty();
        }
        at++;
        depth++;
        int callsOutside = calls;
        calls = 0;
        Query inside = expression();
        calls = callsOutside;
        depth--;
        close(start, "This ( is not closed.");
        if (inside instanceof Query.Everything && mistakes.isEmpty()) {
            mistake(
                    "There is nothing between these parentheses.",
                    start,
                    at - start,
                    "write what to find, or put them in quotes if they are text",
                    Optional.of(without(start, at - start)));
        }
        return Optional.of(inside);
    }
}
