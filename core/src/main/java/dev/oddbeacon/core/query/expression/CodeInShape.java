package dev.oddbeacon.core.query.expression;

/** How code stands in {@code shape( )}: as it is, up to the parenthesis that closes the clause; or in a phrase. */
final class CodeInShape {
    static final String WITHOUT = "without:";

    private CodeInShape() {}

    /** Where code ends: at a parenthesis that closes nothing in it, at a comma before {@code without:}, or the end. */
    static int end(String text, int from) {
        int open = 0;
        for (int at = from; at < text.length(); at++) {
            char c = text.charAt(at);
            if (c == '(') {
                open++;
            } else if (c == ')' && open-- == 0) {
                return at;
            } else if (c == ',' && open == 0 && isBeforeWithout(text, at + 1)) {
                return at;
            } else if (c == '"' || c == '\'' || c == '`') {
                at = endOfString(text, at);
            }
        }
        return text.length();
    }

    private static boolean isBeforeWithout(String text, int from) {
        int at = from;
        while (at < text.length() && ExpressionSyntax.isSpace(text.charAt(at))) {
            at++;
        }
        return text.startsWith(WITHOUT, at);
    }

    /** The last character of a string; a mark that nothing closes on its line is one by itself. */
    private static int endOfString(String text, int from) {
        char mark = text.charAt(from);
        for (int at = from + 1; at < text.length() && text.charAt(at) != '\n'; at++) {
            if (text.charAt(at) == '\\') {
                at++;
            } else if (text.charAt(at) == mark) {
                return at;
            }
        }
        return from;
    }

    /** Whether no mark in it could be closed by one that stands behind the clause; an apostrophe is hardly one. */
    private static boolean closesItsStrings(String code) {
        for (int at = 0; at < code.length(); at++) {
            char c = code.charAt(at);
            if (c == '"' || c == '\'' || c == '`') {
                int end = endOfString(code, at);
                if (end == at && c != '\'') {
                    return false;
                }
                at = end;
            }
        }
        return true;
    }

    /** Code as it is read again. */
    static String written(String code) {
        boolean isPlain = code.equals(code.strip())
                && !code.startsWith("\"")
                && end(code + ")", 0) == code.length()
                && closesItsStrings(code)
                && code.chars().noneMatch(Character::isISOControl);
        return isPlain ? code : ExpressionSyntax.quoted(code);
    }
}
