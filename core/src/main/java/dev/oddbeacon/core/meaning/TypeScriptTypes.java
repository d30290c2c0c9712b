package dev.oddbeacon.core.meaning;

import java.util.ArrayList;
import java.util.List;

/** How TypeScript writes types: behind a colon. */
final class TypeScriptTypes {
    private static final int DEEPEST = 50;

    private TypeScriptTypes() {}

    /** Reads a type with its alternatives. */
    static TypeName type(Code code, int token, int depth) {
        if (depth > DEEPEST) {
            return null;
        }
        int at = code.is(token, '|') || code.is(token, '&') ? token + 1 : token;
        List<TypeName> all = new ArrayList<>();
        boolean isWhole = true;
        while (true) {
            TypeName one = part(code, at, depth + 1);
            if (one == null) {
                return null;
            }
            at = one.end();
            if (!isNothing(one)) {
                all.add(one);
            }
            if (code.is(at, "extends") && depth > 0) { // Depth extends number ? Gauge : Bell
                isWhole = false;
            }
            if (!code.is(at, '|') && !code.is(at, '&') || code.is(at + 1, '|') || code.is(at + 1, '&')) {
                break;
            }
            at++;
        }
        return all.size() == 1 && isWhole && all.getFirst().end() == at
                ? all.getFirst()
                : new TypeName(TypeName.ONE_OF, all, 0, token, at);
    }

    static boolean isNothing(TypeName type) {
        return type.dimensions() == 0
                && type.arguments().isEmpty()
                && (type.parts().equals(List.of("undefined")) || type.parts().equals(List.of("null")));
    }

    static TypeName part(Code code, int token, int depth) {
        int at = token;
        while (code.is(at, "readonly")
                || code.is(at, "keyof")
                || code.is(at, "typeof")
                || code.is(at, "unique")
                || code.is(at, "infer")
                || code.is(at, "asserts")
                || code.is(at, "abstract")
                || code.is(at, "new")) {
            at++;
        }
        boolean isOther = at > token && !code.is(at - 1, "readonly");
        TypeName found = withoutBrackets(code, at, depth);
        if (found == null) {
            return null;
        }
        int end = found.end();
        int dimensions = 0;
        while (code.is(end, '[') && code.partner(end) > end && !code.isFirst(end)) {
            isOther |= code.partner(end) > end + 1;
            dimensions++;
            end = code.partner(end) + 1;
        }
        if (code.is(end, "is") && !code.isFirst(end)) { // one is Gauge
            TypeName told = type(code, end + 1, depth + 1);
            return told == null ? null : unknown("boolean", token, told.end());
        }
        return isOther
                ? unknown("", token, end)
                : new TypeName(found.parts(), found.arguments(), found.dimensions() + dimensions, found.token(), end);
    }

    static TypeName unknown(String name, int token, int end) {
        return new TypeName(List.of(name.isEmpty() ? "{}" : name), List.of(), 0, token, end);
    }

    static TypeName withoutBrackets(Code code, int at, int depth) {
        if (code.isLiteral(at)) {
            return unknown("string", at, at + 1);
        }
        if (code.is(at, '<')) { // <T>(one: T) => T
            int open = angle(code, at);
            return open < 0 ? null : withoutBrackets(code, open, depth + 1);
        }
        int close = code.partner(at);
        if (code.is(at, '(') && close > at) {
            if (code.are(close + 1, "=>")) {
                TypeName result = type(code, close + 3, depth + 1);
                if (result == null) {
                    return null;
                }
                List<TypeName> all = new ArrayList<>(List.of(result));
                parameters(code, at, all, depth + 1);
                return new TypeName(List.of(Type.FUNCTION), all, 0, at, result.end());
            }
            TypeName inner = type(code, at + 1, depth + 1);
            return inner == null || inner.end() != close
                    ? unknown("", at, close + 1)
                    : new TypeName(inner.parts(), inner.arguments(), inner.dimensions(), inner.token(), close + 1);
        }
        if ((code.is(at, '{') || code.is(at, '[')) && close > at) {
            return unknown("", at, close + 1);
        }
        if (code.is(at, '-') || code.is(at, '`')) {
            return unknown("number", at, at + 2);
        }
        if (!code.isName(at) && !code.isReserved(at)) {
            return null;
        }
        if (code.is(at, "import") && code.is(at + 1, '(')) {
            return unknown("", at, code.firstPart(code.partner(at + 1) + 1) + 1);
        }
        List<String> parts = new ArrayList<>(List.of(code.text(at)));
        int last = at++;
        while (code.is(at, '.') && (code.isName(at + 1) || code.isReserved(at + 1))) {
            parts.add(code.text(at + 1));
            last = at + 1;
            at += 2;
        }
        List<TypeName> arguments = new ArrayList<>();
        if (code.is(at, '<')) {
            at = arguments(code, at, arguments, depth);
            if (at < 0) {
                return null;
            }
        }
        boolean isArray = parts.size() == 1
                && arguments.size() == 1
                && (parts.contains("Array") || parts.contains("ReadonlyArray"));
        TypeName element = isArray ? arguments.getFirst() : null;
        return element != null
                ? new TypeName(element.parts(), element.arguments(), element.dimensions() + 1, element.token(), at)
                : new TypeName(List.copyOf(parts), List.copyOf(arguments), 0, last, at);
    }

    /** Reads type arguments; the token behind them, or a negative number if there are none. */
    static int arguments(Code code, int open, List<TypeName> into, int depth) {
        int at = open + 1;
        while (true) {
            TypeName one = type(code, at, depth + 1);
            if (one == null) {
                int close = angle(code, open);
                into.clear();
                return close;
            }
            into.add(one);
            at = one.end();
            if (code.is(at, '>')) {
                return at + 1;
            }
            if (!code.is(at, ',')) {
                into.clear();
                return angle(code, open);
            }
            at++;
        }
    }

    /** The token behind the angle brackets that open at one; negative if they do not close soon. */
    static int angle(Code code, int open) {
        int depth = 0;
        for (int at = open; at < code.count() && at < open + 400; at++) {
            if (code.is(at, '<')) {
                depth++;
            } else if (code.is(at, '>') && !code.is(at - 1, '=')) {
                if (--depth == 0) {
                    return at + 1;
                }
            } else if (code.is(at, ';')) {
                return -1;
            } else if (code.partner(at) > at) {
                at = code.partner(at);
            }
        }
        return -1;
    }

    /** Reads parameters: how many arguments are needed; if the last takes any number, less than nothing by one more than that. */
    static int parameters(Code code, int open, List<TypeName> into) {
        return parameters(code, open, into, 0);
    }

    static int parameters(Code code, int open, List<TypeName> into, int depth) {
        int close = code.is(open, '(') ? code.partner(open) : -1;
        int least = 0;
        boolean takesMore = false;
        for (int at = open + 1; at < close; ) {
            int end = at;
            int colon = -1;
            int value = -1;
            while (end < close && !code.is(end, ',')) {
                colon = colon < 0 && value < 0 && code.is(end, ':') ? end : colon;
                value = value < 0 && code.is(end, '=') && !code.is(end + 1, '>') ? end : value;
                int angle = code.is(end, '<') ? angle(code, end) : -1;
                end = angle > 0 ? angle : code.partner(end) > end ? code.partner(end) + 1 : end + 1;
            }
            takesMore |= code.are(at, "...");
            boolean isOptional = value > 0 || takesMore || colon > 0 && code.is(colon - 1, '?');
            if (!code.is(at, "this")) {
                least += isOptional ? 0 : 1;
                TypeName type = colon < 0 ? null : type(code, colon + 1, depth);
                into.add(type == null ? unknown("", at, at + 1) : type);
            }
            at = end + 1;
        }
        return takesMore ? -least - 1 : least;
    }
}
