package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.meaning.Manner.Given;
import dev.oddbeacon.core.meaning.Manner.Local;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import java.util.Optional;

/** The variables and parameters of functions in Go, and how far they reach. */
final class GoLocals {
    private GoLocals() {}

    /** What a name means at a token, if it is a variable or a parameter of a function around it. */
    static Optional<Local> local(CodeFile file, String name, int token, Manner manner) {
        int first = file.enclosing(token).map(one -> outermost(file, one)).orElse(0);
        return manner.nearest(file, name, first, token, at -> declaredAt(file.code(), at, token));
    }

    /** Whether a variable or a parameter of a function is declared by the name at a token. */
    static boolean declares(Code code, int token) {
        return assignment(code, token) >= 0 || variableWord(code, token) >= 0 || signature(code, token) >= 0;
    }

    private static int outermost(CodeFile file, Declared inner) {
        Declared at = inner;
        while (file.parent(at).isPresent()) {
            at = file.parent(at).get();
        }
        return file.token(at.start());
    }

    /** The sign that declares the names before it, if a name is one of them; negative otherwise. */
    private static int assignment(Code code, int name) {
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1)) {
            at += 2;
        }
        return code.are(at, ":=") ? at : -1;
    }

    /** The first of the names that are declared together with one. */
    private static int firstOf(Code code, int name) {
        int at = name;
        while (code.is(at - 1, ',') && code.isName(at - 2)) {
            at -= 2;
        }
        return at;
    }

    /** The word, or the bracket behind it, after which a name is declared; negative if there is none. */
    private static int variableWord(Code code, int name) {
        int before = firstOf(code, name) - 1;
        boolean isWord = code.is(before, "var") || code.is(before, "const");
        int open = code.around(name);
        boolean isInGroup = code.is(open, '(')
                && (code.is(open - 1, "var") || code.is(open - 1, "const"))
                && (before == open || code.isFirst(before + 1));
        return isWord ? before : isInGroup ? open : -1;
    }

    /** The bracket of the parameters, results or receiver that a name is one of; negative if there is none. */
    private static int signature(Code code, int name) {
        int open = code.around(name);
        boolean mayBe =
                code.is(open, '(') && (code.is(name - 1, '(') || code.is(name - 1, ',')) && code.partner(open) > 0;
        return mayBe && isSignature(code, open, 0) && parameter(code, open, name) != null ? open : -1;
    }

    private static boolean isSignature(Code code, int open, int depth) {
        int before = open - 1;
        if (code.is(before, ']') && code.partner(before) > 0) { // func sum[T any](
            before = code.partner(before) - 1;
        }
        if (code.is(before, "func")) {
            return true;
        }
        if (code.isName(before)) {
            int owner = code.is(before - 1, ')') ? code.partner(before - 1) : -1;
            return code.is(before - 1, "func") || owner > 0 && code.is(owner - 1, "func");
        }
        return depth < 2
                && code.is(before, ')')
                && code.partner(before) > 0
                && isSignature(code, code.partner(before), depth + 1);
    }

    /** The type of a parameter; null if the name at a token is none. */
    private static TypeName parameter(Code code, int open, int name) {
        int close = code.partner(open);
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1) && at < close) { // depth, width int
            at += 2;
        }
        boolean isType = at >= close
                || code.is(at, ',')
                || code.is(at, '.') && !code.are(at, "...")
                || GoTypes.isGeneric(code, at, close);
        return isType ? null : GoTypes.type(code, at, 0);
    }

    /** The variable that is declared at a token, if it holds at another one behind it. */
    private static Optional<Local> declaredAt(Code code, int at, int user) {
        int open = signature(code, at);
        if (open >= 0) {
            int body = body(code, open);
            boolean holds = user <= code.partner(open) || body > 0 && code.partner(body) > user;
            return holds ? Optional.of(Local.typed(parameter(code, open, at))) : Optional.empty();
        }
        int first = firstOf(code, at);
        int position = (at - first) / 2;
        int sign = assignment(code, at);
        if (sign < 0) {
            return reaches(code, first, user) ? Optional.of(variable(code, at, position, user)) : Optional.empty();
        }
        boolean isElement = code.is(sign + 2, "range");
        int from = isElement ? sign + 3 : sign + 2;
        int end = end(code, from);
        if (user != at && (user < end && user > at || !reaches(code, first, user))) {
            return Optional.empty();
        }
        return Optional.of(given(code, from, end, isElement, position, user));
    }

    /** {@code var depth, width int} and {@code var gauge = first()}. */
    private static Local variable(Code code, int name, int position, int user) {
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1)) {
            at += 2;
        }
        Optional<TypeName> type = code.isFirst(at) || code.is(at, '=')
                ? Optional.empty()
                : Optional.ofNullable(GoTypes.type(code, at, 0));
        return type.map(Local::typed)
                .orElseGet(() -> code.is(name + 1, '=') || code.is(name + 1, ',')
                        ? given(code, firstGiven(code, name), end(code, firstGiven(code, name)), false, position, user)
                        : Local.UNTYPED);
    }

    private static int firstGiven(Code code, int name) {
        int at = name + 1;
        while (at < code.count() && !code.is(at, '=') && !code.isFirst(at)) {
            at++;
        }
        return at + 1;
    }

    private static Local given(Code code, int from, int end, boolean isElement, int position, int user) {
        boolean isSwitch = code.is(end - 1, ')') && code.is(end - 2, "type") && code.are(end - 4, ".(");
        if (isSwitch) {
            Optional<TypeName> chosen = chosen(code, end, user);
            return chosen.map(Local::typed).orElseGet(() -> Local.given(Given.value(from, end - 4)));
        }
        if (isElement) {
            return Local.given(new Given(from, end, true, position));
        }
        int start = from;
        int number = 0;
        for (int at = from; at < end; at++) {
            if (code.is(at, ',')) {
                if (number == position) {
                    return Local.given(Given.value(start, at));
                }
                number++;
                start = at + 1;
            }
            at = Math.max(at, code.partner(at));
        }
        return number > 0 && number == position
                ? Local.given(Given.value(start, end))
                : number > 0 ? Local.UNTYPED : Local.given(new Given(from, end, false, position));
    }

    /** The type of the case around a token, in the switch whose block opens at another one. */
    private static Optional<TypeName> chosen(Code code, int open, int user) {
        int brace = open;
        while (brace < user && !code.is(brace, '{')) {
            brace++;
        }
        int last = -1;
        for (int at = brace + 1; at < user; at++) {
            if (code.is(at, "case") || code.is(at, "default")) {
                last = at;
            }
            if (code.partner(at) > at) {
                at = code.partner(at) < user ? code.partner(at) : user;
            }
        }
        return last < 0 || code.is(last, "default")
                ? Optional.empty()
                : Optional.ofNullable(GoTypes.type(code, last + 1, 0)).filter(type -> code.is(type.end(), ':'));
    }

    /** The brace of the body of a function of which brackets open at a token; negative if it has none. */
    private static int body(Code code, int open) {
        int at = code.partner(open) + 1;
        if (code.isName(at) && code.is(open - 1, "func")) { // behind a receiver
            at++;
        }
        while (code.is(at, '(') || code.is(at, '[') && !code.is(at + 1, ']')) {
            if (code.partner(at) < 0) {
                return -1;
            }
            at = code.partner(at) + 1;
        }
        if (!code.is(at, '{') && !code.isFirst(at)) {
            TypeName result = GoTypes.type(code, at, 0);
            at = result == null ? at : result.end();
        }
        return code.is(at, '{') ? at : -1;
    }

    /** The token behind a value: at the end of its line, or of the head that it stands in. */
    private static int end(Code code, int from) {
        for (int at = from; at < code.count(); at++) {
            boolean isOver = code.is(at, ';')
                    || code.is(at, ')')
                    || code.is(at, '}')
                    || code.is(at, ']')
                    || code.is(at, ':')
                    || at > from && code.isFirst(at) && endsLine(code, at - 1)
                    || code.is(at, '{')
                            && at > from
                            && code.start(at) > code.end(at - 1)
                            && !isFunction(code, from, at);
            if (isOver) {
                return at;
            }
            at = Math.max(at, code.partner(at));
        }
        return code.count();
    }

    private static boolean isFunction(Code code, int from, int brace) {
        for (int at = brace - 1; at >= from; at--) {
            if (code.is(at, "func") || code.is(at, "struct") || code.is(at, "interface")) {
                return true;
            }
        }
        return false;
    }

    private static boolean endsLine(Code code, int token) {
        return code.isName(token)
                || code.isLiteral(token)
                || code.isReserved(token)
                || code.is(token, ')')
                || code.is(token, ']')
                || code.is(token, '}')
                || code.are(token - 1, "++")
                || code.are(token - 1, "--");
    }

    /** Whether a variable that is declared at a token holds at another one behind it. */
    private static boolean reaches(Code code, int first, int user) {
        int word = first - 1;
        boolean isHead = code.is(word, "if") || code.is(word, "for") || code.is(word, "switch");
        if (isHead) {
            return user < endOfStatement(code, first);
        }
        int block = code.blockAround(first);
        if (block >= 0 && code.partner(block) >= 0 && code.partner(block) < user) {
            return false;
        }
        for (int at = first + 1; at < user; at++) { // another case of the same switch
            if (code.around(at) == block && (code.is(at, "case") || code.is(at, "default"))) {
                return false;
            }
            if (code.partner(at) > at && code.partner(at) < user) {
                at = code.partner(at);
            }
        }
        return true;
    }

    /** The token behind the blocks of a statement that a token stands in the head of. */
    private static int endOfStatement(Code code, int head) {
        int at = head;
        while (at < code.count() && !code.is(at, '{')) {
            at = code.is(at, '(') || code.is(at, '[') ? Math.max(at, code.partner(at)) + 1 : at + 1;
        }
        while (at < code.count()) {
            int close = code.partner(at);
            if (close < 0) {
                return code.count();
            }
            boolean isValue = code.start(at) == code.end(at - 1); // Gauge{} in the head
            if (!isValue && !code.is(close + 1, "else")) {
                return close;
            }
            at = close + 1;
            while (at < code.count() && !code.is(at, '{')) {
                at++;
            }
        }
        return code.count();
    }
}
