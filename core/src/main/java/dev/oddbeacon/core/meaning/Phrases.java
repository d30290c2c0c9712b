package dev.oddbeacon.core.meaning;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Where the parts of expressions begin and end among the tokens of a code. */
final class Phrases {
    private final Code code;
    private final Manner manner;

    Phrases(Code code, Manner manner) {
        this.code = code;
        this.manner = manner;
    }

    /** The arguments in brackets, as pairs of tokens. */
    List<int[]> arguments(int open) {
        List<int[]> arguments = new ArrayList<>();
        int close = code.partner(open);
        int from = open + 1;
        if (close <= open + 1) {
            return arguments;
        }
        for (int at = from; at < close; ) {
            if (code.is(at, ',')) {
                arguments.add(new int[] {from, at});
                from = at + 1;
            } else if (code.is(at, '<') && code.isName(at - 1)) {
                int past = manner.type(code, at - 1).map(TypeName::end).orElse(-1);
                boolean isGeneric = past > 0
                        && (code.is(past, '(')
                                || code.is(past, ':')
                                || code.is(past, '{')
                                || code.is(past, '.')
                                || code.is(past, ')')
                                || code.isName(past));
                at = isGeneric ? past : at + 1;
                continue;
            }
            at = code.partner(at) > at ? code.partner(at) + 1 : at + 1;
        }
        arguments.add(new int[] {from, close});
        return arguments;
    }

    /** The first token of what a receiver is written as that ends at a token. */
    int chainStart(int last) {
        int at = last;
        while (true) {
            if (code.is(at, '>')) { // Map<String, Gauge>::get, or this.<Gauge>read
                at = angle(at) - 1;
                if (code.is(at, '.')) {
                    at--;
                    continue;
                }
            }
            while (isClosing(at) && code.partner(at) >= 0) {
                int open = code.partner(at);
                if (open == 0) {
                    return 0;
                }
                boolean isCast = manner.is(Manner.Trait.CASTS_IN_FRONT);
                boolean isCall = code.isName(open - 1)
                        || code.is(open - 1, '>')
                        || code.is(open - 1, "this")
                        || code.is(open - 1, "super")
                        || !isCast && isClosing(open - 1);
                boolean isPrimary = code.is(at, ')') && !(isCall && (isCast || !code.isFirst(open)));
                if (code.is(at, ')') && code.is(open - 1, '.')) { // value.(Gauge)
                    at = open - 2;
                    continue;
                }
                if (isPrimary) {
                    return newBefore(open);
                }
                at = open - 1;
                if (code.is(at, '>')) {
                    int before = newBefore(at + 1);
                    if (before < at) {
                        return before;
                    }
                    break;
                }
            }
            if (code.is(at, '>')) {
                continue;
            }
            int before = newBefore(at + 1);
            if (before <= at) {
                return before;
            }
            if (code.is(at - 1, '.') && !code.are(at - 2, "..")) {
                at = manner.lastOfReceiver(code, at - 1);
                continue;
            }
            return Math.max(0, at);
        }
    }

    private boolean isClosing(int token) {
        return code.is(token, ')') || code.is(token, ']') || code.is(token, '}');
    }

    /** The angle bracket that belongs to a closing one. */
    int angle(int close) {
        int open = 0;
        for (int at = close; at > 0; at--) {
            if (code.is(at, '>')) {
                open++;
            } else if (code.is(at, '<') && --open == 0) {
                return at;
            }
        }
        return 0;
    }

    /** The token of {@code new} if what it creates ends before a token; else that token. */
    private int newBefore(int end) {
        for (int at = end - 1; at > 0 && at > end - 60; at--) {
            if (code.is(at, "new")) {
                Optional<TypeName> type = manner.type(code, at + 1);
                return type.isPresent() && type.get().end() == end ? at : end;
            }
            if (!code.isName(at)
                    && !code.is(at, '.')
                    && !code.is(at, '<')
                    && !code.is(at, '>')
                    && !code.is(at, ',')
                    && !code.is(at, '?')
                    && !code.isReserved(at)
                    && !code.is(at, '[')
                    && !code.is(at, ']')) {
                return end;
            }
        }
        return end;
    }

    /** Whether square brackets take a part of a value, and not an element. */
    boolean isPart(int open) {
        for (int at = open + 1; at < code.partner(open); at++) {
            if (code.is(at, ':')) {
                return true;
            }
            at = Math.max(at, code.partner(at));
        }
        return false;
    }

    /** Whether a token lies in the body of a function without a name that begins at another. */
    static boolean holds(Code code, int body, int user) {
        if (code.is(body, '{')) {
            return code.partner(body) > user;
        }
        for (int at = body; at < user; at++) {
            if (code.is(at, ';') || code.is(at, ',') || code.is(at, ')') || code.is(at, '}')) {
                return false;
            }
            if (code.partner(at) > at) {
                if (code.partner(at) > user) {
                    return true;
                }
                at = code.partner(at);
            }
        }
        return true;
    }

    /** Whether an operand may begin with a token. */
    boolean isOperand(int token) {
        return code.isName(token)
                || code.isLiteral(token)
                || code.is(token, '(')
                || code.is(token, "this")
                || code.is(token, "super")
                || code.is(token, "new")
                || code.is(token, "null");
    }

    /** The question mark of a choice between two values. */
    int choice(int from, int to) {
        for (int at = from; at < to; at++) {
            if (manner.behindSign(code, at) > at) {
                at = manner.behindSign(code, at) - 1;
                continue;
            }
            if (code.is(at, '?')) {
                return at;
            }
            if (code.is(at, '<') || code.are(at, "->")) {
                return -1;
            }
            if (code.partner(at) > at) {
                at = code.partner(at);
            }
        }
        return -1;
    }

    /** The colon of a choice; the end if there is none. */
    int colon(int question, int to) {
        for (int at = question + 1; at < to; at++) {
            if (code.is(at, ':') && !code.is(at + 1, ':') && !code.is(at - 1, ':')) {
                return at;
            }
            if (code.partner(at) > at) {
                at = code.partner(at);
            }
        }
        return to;
    }

    /** Whether a name stands in an import. */
    boolean isImport(int token) {
        int at = token;
        while (at > 0 && (code.is(at - 1, '.') || code.isName(at - 1))) {
            at--;
        }
        return code.is(at - 1, "import") || code.is(at - 1, "static") && code.is(at - 2, "import");
    }

    /** Whether a name is what a case of a switch asks for. */
    boolean isCase(int token) {
        int at = token;
        while (code.is(at - 1, ',') && (code.isName(at - 2) || code.isLiteral(at - 2))) {
            at -= 2;
        }
        return code.is(at - 1, "case");
    }
}
