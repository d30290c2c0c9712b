package dev.oddbeacon.core.meaning;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** How Go writes types: behind the name. */
final class GoTypes {
    private static final int DEEPEST = 50;

    private GoTypes() {}

    static TypeName type(Code code, int token, int depth) {
        int at = token;
        if (depth > DEEPEST) {
            return null;
        }
        if (code.are(at, "...")) {
            TypeName element = type(code, at + 3, depth + 1);
            return element == null ? null : element.withDimensions(1);
        }
        if (code.is(at, '*')) {
            return type(code, at + 1, depth + 1);
        }
        if (code.is(at, '(') && code.partner(at) > at) {
            TypeName inner = type(code, at + 1, depth + 1);
            return inner == null
                    ? null
                    : new TypeName(
                            inner.parts(), inner.arguments(), inner.dimensions(), inner.token(), code.partner(at) + 1);
        }
        if (code.is(at, '[') && code.partner(at) > at) {
            TypeName element = type(code, code.partner(at) + 1, depth + 1);
            return element == null ? null : element.withDimensions(1);
        }
        if (code.is(at, '<') && code.is(at + 1, '-')) {
            at += 2;
        }
        if (code.is(at, "chan")) {
            int element = code.are(at + 1, "<-") ? at + 3 : at + 1;
            TypeName of = type(code, element, depth + 1);
            return of == null ? null : new TypeName(List.of(Type.CHANNEL), List.of(of), 0, at, of.end());
        }
        if (code.is(at, "map") && code.is(at + 1, '[')) {
            TypeName key = type(code, at + 2, depth + 1);
            TypeName value = key == null ? null : type(code, code.partner(at + 1) + 1, depth + 1);
            return value == null ? null : new TypeName(List.of("map"), List.of(key, value), 0, at, value.end());
        }
        if (code.is(at, "func") && code.is(at + 1, '(')) {
            int end = code.partner(at + 1) + 1;
            Optional<TypeName> result = end <= 0 ? Optional.empty() : result(code, end);
            int last = code.is(end, '(')
                    ? code.partner(end) + 1
                    : result.map(TypeName::end).orElse(end);
            return new TypeName(List.of(Type.FUNCTION), result.stream().toList(), 0, at, last);
        }
        if ((code.is(at, "struct") || code.is(at, "interface")) && code.is(at + 1, '{')) {
            return new TypeName(List.of(code.text(at)), List.of(), 0, at, code.partner(at + 1) + 1);
        }
        if (!code.isName(at)) {
            return null;
        }
        List<String> parts = new ArrayList<>(List.of(code.text(at)));
        int last = at++;
        if (code.is(at, '.') && code.isName(at + 1)) {
            parts.add(code.text(at + 1));
            last = at + 1;
            at += 2;
        }
        List<TypeName> arguments = new ArrayList<>();
        if (code.is(at, '[') && code.end(at - 1) == code.start(at) && !code.is(at + 1, ']')) {
            int close = code.partner(at);
            int next = at + 1;
            while (next < close) {
                TypeName one = type(code, next, depth + 1);
                if (one == null || one.end() < close && !code.is(one.end(), ',')) {
                    return new TypeName(parts, List.of(), 0, last, at);
                }
                arguments.add(one);
                next = one.end() + 1;
            }
            at = close + 1;
        }
        return new TypeName(List.copyOf(parts), List.copyOf(arguments), 0, last, at);
    }

    /** What a function returns whose brackets end before a token. */
    static Optional<TypeName> result(Code code, int behind) {
        if (behind <= 0 || code.isFirst(behind) || code.is(behind, '{')) {
            return Optional.empty();
        }
        if (!code.is(behind, '(')) {
            return Optional.ofNullable(type(code, behind, 0));
        }
        List<TypeName> results = new ArrayList<>();
        parameters(code, behind, results);
        return results.size() < 2
                ? results.stream().findFirst()
                : Optional.of(new TypeName(List.of(Type.SEVERAL), results, 0, behind, code.partner(behind) + 1));
    }

    /** Reads what stands in the brackets of a function; whether the last takes any number. */
    static boolean parameters(Code code, int open, List<TypeName> into) {
        int close = code.is(open, '(') ? code.partner(open) : -1;
        boolean isNamed = false;
        List<int[]> entries = new ArrayList<>();
        for (int at = open + 1; at < close; ) {
            int end = at;
            while (end < close && !code.is(end, ',')) {
                end = code.partner(end) > end ? code.partner(end) + 1 : end + 1;
            }
            boolean hasType = code.isName(at) && end > at + 1 && !code.is(at + 1, '.') && !isGeneric(code, at + 1, end);
            isNamed |= hasType;
            entries.add(new int[] {at, end});
            at = end + 1;
        }
        TypeName last = null;
        boolean takesMore = false;
        List<TypeName> reversed = new ArrayList<>();
        for (int i = entries.size() - 1; i >= 0; i--) {
            int from = entries.get(i)[0];
            boolean hasType = !isNamed || entries.get(i)[1] > from + 1;
            int start = isNamed ? from + 1 : from;
            if (hasType) {
                last = type(code, start, 0);
                takesMore |= i == entries.size() - 1 && code.are(start, "...");
            }
            reversed.add(last == null ? new TypeName(List.of("?"), List.of(), 0, from, from + 1) : last);
        }
        into.addAll(reversed.reversed());
        return takesMore;
    }

    /** {@code Set[string]} is a type, {@code all []string} a name and one. */
    static boolean isGeneric(Code code, int open, int end) {
        return code.is(open, '[')
                && code.end(open - 1) == code.start(open)
                && code.partner(open) == end - 1
                && code.partner(open) > open + 1;
    }

    /** Reads type parameters, if a bracket opens right there; the token behind them. */
    static int variables(Code code, int open, List<TypeVariable> into) {
        boolean isThere = code.is(open, '[')
                && code.partner(open) > open + 2
                && code.end(open - 1) == code.start(open)
                && code.isName(open + 1)
                && !code.is(open + 2, ']');
        if (!isThere) {
            return open;
        }
        int close = code.partner(open);
        List<String> names = new ArrayList<>();
        for (int at = open + 1; at < close; ) {
            names.add(code.text(at));
            if (code.is(at + 1, ',')) {
                at += 2;
                continue;
            }
            TypeName bound = type(code, code.is(at + 1, '~') ? at + 2 : at + 1, 0);
            names.forEach(name -> into.add(new TypeVariable(name, Optional.ofNullable(bound))));
            names.clear();
            at = bound == null ? close : bound.end();
            while (at < close && !code.is(at, ',')) {
                at++;
            }
            at++;
        }
        return close + 1;
    }
}
