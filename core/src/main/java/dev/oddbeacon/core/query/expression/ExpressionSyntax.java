package dev.oddbeacon.core.query.expression;

import java.util.List;
import java.util.Locale;

/** The smallest parts of the language of expressions, which reading and writing share. */
public final class ExpressionSyntax {
    private static final List<String> OPERATORS = List.of("and", "or", "not");

    private ExpressionSyntax() {}

    static boolean isOperator(String word) {
        return OPERATORS.contains(word.toLowerCase(Locale.ROOT));
    }

    /** @param inArguments whether the word stands in the arguments of a clause, where a comma ends it */
    static boolean endsWord(int codePoint, boolean inArguments) {
        return codePoint == '(' || codePoint == ')' || inArguments && codePoint == ',' || isSpace(codePoint);
    }

    static boolean isSpace(int codePoint) {
        return Character.isWhitespace(codePoint) || Character.isSpaceChar(codePoint);
    }

    /** A phrase: text in quotation marks. */
    public static String quoted(String text) {
        return "\""
                + text.replace("\\", "\\\\")
                        .replace("\"", "\\\"")
                        .replace("\t", "\\t")
                        .replace("\n", "\\n")
                        .replace("\r", "\\r")
                + "\"";
    }
}
