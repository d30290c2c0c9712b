package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.meaning.Manner.Given;
import dev.oddbeacon.core.meaning.Manner.Local;
import java.util.Optional;

/** The variables and parameters of functions in TypeScript, and how far they reach. */
final class TypeScriptLocals {
    private static final int DEEPEST = 50;

    private TypeScriptLocals() {}

    /** What a name means at a token, if it is a variable or a parameter of a function around it. */
    static Optional<Local> local(CodeFile file, String name, int token, Manner manner) {
        return manner.nearest(file, name, 0, token, at -> declaredAt(file.code(), at, token));
    }

    /** Whether a variable or a parameter of a function is declared by the name at a token. */
    static boolean declares(Code code, int token) {
        return variableWord(code, token) >= 0
                || code.are(token + 1, "=>") && !code.is(token - 1, '.')
                || signature(code, token) >= 0;
    }

    /** The word that declares a variable, alone, among others or out of a value; negative if a name is none. */
    private static int variableWord(Code code, int name) {
        int at = name;
        for (int i = 0; i < DEEPEST; i++) {
            int before = at - 1;
            if (code.is(before, "const")
                    || code.is(before, "let")
                    || code.is(before, "var")
                    || code.is(before, "using")) {
                return code.is(name + 1, ':') && at != name ? -1 : before;
            }
            int open = code.around(at);
            boolean isPattern = (code.is(open, '{') || code.is(open, '[')) && isInPattern(code, at, open);
            if (!isPattern) {
                return -1;
            }
            at = open;
        }
        return -1;
    }

    /** Whether all that stands in brackets before a token may be that of a pattern. */
    private static boolean isInPattern(Code code, int token, int open) {
        return code.is(token - 1, '{')
                || code.is(token - 1, '[')
                || code.is(token - 1, ',')
                || code.is(token - 1, ':')
                || code.are(token - 3, "...")
                || token - 1 == open;
    }

    /** The bracket of the parameters that a name is one of, or is taken out of one; negative if it is none. */
    private static int signature(Code code, int name) {
        int at = name;
        for (int i = 0; i < DEEPEST; i++) {
            int open = code.around(at);
            boolean begins = isInPattern(code, at, open) || code.is(at - 1, '(') || isModifier(code, at - 1);
            if (!begins || open < 0) {
                return -1;
            }
            if (code.is(open, '(')) {
                boolean ends = code.is(at + 1, ',')
                        || code.is(at + 1, ')')
                        || code.is(at + 1, ':')
                        || code.is(at + 1, '=')
                        || code.is(at + 1, '?')
                        || at != name;
                return ends && !code.is(at - 1, ':') && body(code, open) >= 0 ? open : -1;
            }
            if (!code.is(open, '{') && !code.is(open, '[') || code.is(name + 1, ':') && i == 0) {
                return -1;
            }
            at = open;
        }
        return -1;
    }

    private static boolean isModifier(Code code, int token) {
        return code.is(token, "public")
                || code.is(token, "private")
                || code.is(token, "protected")
                || code.is(token, "readonly")
                || code.is(token, "override");
    }

    /** The first token of the body of a function whose parameters open at a token; negative if it has none. */
    private static int body(Code code, int open) {
        int close = code.partner(open);
        if (close < 0
                || code.is(open - 1, "if")
                || code.is(open - 1, "for")
                || code.is(open - 1, "while")
                || code.is(open - 1, "switch")
                || code.is(open - 1, "with")
                || code.is(open - 1, "await")) {
            return -1;
        }
        int at = close + 1;
        if (code.is(at, ':')) {
            TypeName result = TypeScriptTypes.type(code, at + 1, 0);
            at = result == null ? at : result.end();
        }
        return code.are(at, "=>") ? at + 2 : code.is(at, '{') ? at : -1;
    }

    /** The variable that is declared at a token, if it holds at another one behind it. */
    private static Optional<Local> declaredAt(Code code, int at, int user) {
        if (code.are(at + 1, "=>") && !code.is(at - 1, '.')) {
            return holds(code, at + 3, user) ? Optional.of(Local.ofLambda(at, 0)) : Optional.empty();
        }
        int open = signature(code, at);
        if (open >= 0) {
            boolean holds = user <= code.partner(open) || holds(code, body(code, open), user);
            return holds ? Optional.of(parameter(code, open, at)) : Optional.empty();
        }
        int word = variableWord(code, at);
        if (word < 0 || !reaches(code, word, user)) {
            return Optional.empty();
        }
        if (word != at - 1) {
            return Optional.of(Local.UNTYPED);
        }
        int behind = code.is(at + 1, '!') ? at + 2 : at + 1;
        Optional<Local> typed = code.is(behind, ':')
                ? Optional.ofNullable(TypeScriptTypes.type(code, behind + 1, 0)).map(Local::typed)
                : Optional.empty();
        if (typed.isPresent()) {
            return typed;
        }
        boolean isElement = code.is(behind, "of");
        if (!isElement && !code.is(behind, '=')) {
            return Optional.of(Local.UNTYPED);
        }
        int end = end(code, behind + 1);
        return user > at && user < end && !isElement && isBefore(code, behind + 1, user)
                ? Optional.empty()
                : Optional.of(Local.given(isElement ? Given.element(behind + 1, end) : Given.value(behind + 1, end)));
    }

    /** Whether a variable cannot be used yet where it is given its value: but in a function it can. */
    private static boolean isBefore(Code code, int from, int user) {
        for (int at = from; at < user; at++) {
            if (code.are(at, "=>") || code.is(at, "function")) {
                return false;
            }
        }
        return true;
    }

    private static Local parameter(Code code, int open, int name) {
        if (code.around(name) != open) {
            return Local.UNTYPED;
        }
        int at = code.is(name + 1, '?') ? name + 2 : name + 1;
        if (code.is(at, ':')) {
            boolean isRest = code.are(name - 3, "...");
            TypeName type = TypeScriptTypes.type(code, at + 1, 0);
            return type == null || isRest && type.dimensions() == 0 ? Local.UNTYPED : Local.typed(type);
        }
        if (code.is(at, '=')) {
            int end = at + 1;
            while (end < code.partner(open) && !code.is(end, ',')) {
                end = Math.max(end, code.partner(end)) + 1;
            }
            return Local.given(Given.value(at + 1, end));
        }
        return code.are(code.partner(open) + 1, "=>")
                ? Local.ofLambda(open, position(code, open, name))
                : Local.UNTYPED;
    }

    private static int position(Code code, int open, int name) {
        int position = 0;
        for (int at = open + 1; at < name; at++) {
            position += code.is(at, ',') ? 1 : 0;
            at = Math.max(at, code.partner(at));
        }
        return position;
    }

    /** Whether a token lies in the body of a function, or of a statement, that begins at another. */
    private static boolean holds(Code code, int body, int user) {
        return code.is(body, '{') ? code.partner(body) > user : user >= body && user < end(code, body);
    }

    /** The token behind a value. */
    private static int end(Code code, int from) {
        for (int at = from; at < code.count(); at++) {
            boolean isOver = code.is(at, ';')
                    || code.is(at, ',')
                    || code.is(at, ')')
                    || code.is(at, '}')
                    || code.is(at, ']')
                    || at > from && code.isFirst(at) && endsLine(code, at);
            if (isOver) {
                return at;
            }
            int angle = code.is(at, '<') && code.isName(at - 1) ? TypeScriptTypes.angle(code, at) : -1;
            at = angle > 0 && code.is(angle, '(') ? angle - 1 : Math.max(at, code.partner(at));
        }
        return code.count();
    }

    /** Whether a line ends a statement before the token that begins the next one. */
    private static boolean endsLine(Code code, int next) {
        int last = next - 1;
        boolean isComplete = code.isName(last)
                || code.isLiteral(last)
                || code.is(last, ')')
                || code.is(last, ']')
                || code.is(last, '}')
                || code.is(last, '>')
                || code.is(last, "this")
                || code.is(last, "null")
                || code.is(last, "true")
                || code.is(last, "false")
                || code.is(last, '!');
        boolean isContinued = !code.isName(next)
                        && !code.isReserved(next)
                        && !code.isLiteral(next)
                        && !code.is(next, '@')
                        && !code.is(next, '{')
                || code.is(next, "as")
                || code.is(next, "instanceof")
                || code.is(next, "in")
                || code.is(next, "satisfies");
        return isComplete && !isContinued;
    }

    /** Whether a variable that is declared behind a word holds at a token behind it. */
    private static boolean reaches(Code code, int word, int user) {
        int open = code.around(word);
        if (code.is(open, '(')) { // for (const gauge of gauges)
            int close = code.partner(open);
            return close < 0 || user <= close || holds(code, close + 1, user);
        }
        int block = code.blockAround(word);
        return block < 0 || code.partner(block) < 0 || code.partner(block) > user;
    }
}
