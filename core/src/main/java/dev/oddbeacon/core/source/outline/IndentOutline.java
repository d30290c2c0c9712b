package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Word;
import java.util.Arrays;

/**
 * Python: blocks are indented. Declares classes, functions, and names that are assigned in modules, classes and through
 * {@code self}.
 */
final class IndentOutline implements Outline {
    private static final int LONGEST_HEAD = 512;

    private final byte[] text;
    private final Marks marks;
    private final int[] tokenStarts = new int[LONGEST_HEAD];
    private final int[] tokenEnds = new int[LONGEST_HEAD];
    private final byte[] tokenSigns = new byte[LONGEST_HEAD]; // 0 for words, '"' for literals
    private final Word[] tokenWords = new Word[LONGEST_HEAD];
    private int count;
    private int[] indents = new int[16]; // of the open blocks, ascending
    private int[] owners = new int[16];
    private int open;
    private int brackets;
    private int bracketEquals = -1; // the first = outside brackets
    private int lineStart;
    private int lastEnd;

    IndentOutline(byte[] text, Marks marks) {
        this.text = text;
        this.marks = marks;
    }

    @Override
    public void word(int start, int end, Word word) {
        token(start, end, (byte) 0, word);
    }

    @Override
    public void literal(int start, int end) {
        token(start, end, (byte) '"', null);
    }

    @Override
    public void sign(int at, byte sign) {
        if (count == 0) {
            lineStart = lineStart(at);
        }
        if (sign == '(' || sign == '[' || sign == '{') {
            brackets++;
        } else if ((sign == ')' || sign == ']' || sign == '}') && brackets > 0) {
            brackets--;
        } else if (sign == ';' && brackets == 0) {
            statement();
            lastEnd = at + 1;
            return;
        } else if (sign == '=' && brackets == 0 && bracketEquals < 0 && count > 0) {
            byte before = tokenSigns[count - 1];
            boolean isCompound = at + 1 < text.length && text[at + 1] == '='
                    || before != 0 && tokenEnds[count - 1] == at && "=!<>+-*/%&|^@:".indexOf(before) >= 0;
            bracketEquals = isCompound ? LONGEST_HEAD : count;
        }
        token(at, at + 1, sign, null);
    }

    private void token(int start, int end, byte sign, Word word) {
        if (count == 0 && sign == 0 || count == 0 && sign == '"') {
            lineStart = lineStart(start);
        }
        lastEnd = end;
        if (count == LONGEST_HEAD) {
            return;
        }
        tokenStarts[count] = start;
        tokenEnds[count] = end;
        tokenSigns[count] = sign;
        tokenWords[count++] = word;
    }

    private int lineStart(int at) {
        int i = at;
        while (i > 0 && text[i - 1] != '\n' && (text[i - 1] == ' ' || text[i - 1] == '\t')) {
            i--;
        }
        return i;
    }

    @Override
    public void line(int at) {
        if (brackets > 0 && !startsAnew(at)) {
            return;
        }
        brackets = 0;
        statement();
    }

    /** Whether the next line begins a declaration although a bracket is open: it was forgotten. */
    private boolean startsAnew(int at) {
        return text.length > at + 6
                && (Arrays.equals(text, at + 1, at + 5, new byte[] {'d', 'e', 'f', ' '}, 0, 4)
                        || Arrays.equals(text, at + 1, at + 7, new byte[] {'c', 'l', 'a', 's', 's', ' '}, 0, 6));
    }

    private boolean isRole(int token, Word.Role role) {
        return token < count && tokenWords[token] != null && tokenWords[token].role() == role;
    }

    private boolean isName(int token) {
        return token < count && tokenWords[token] != null && tokenWords[token].isName();
    }

    private boolean isSign(int token, char sign) {
        return token >= 0 && token < count && tokenWords[token] == null && tokenSigns[token] == sign;
    }

    private void statement() {
        if (count == 0) {
            bracketEquals = -1;
            return;
        }
        int indent = tokenStarts[0] - lineStart;
        for (int i = lineStart; i < tokenStarts[0]; i++) {
            indent += text[i] == '\t' ? 7 : 0;
        }
        if (text.length > lineStart && (lineStart == 0 || text[lineStart - 1] == '\n')) {
            while (open > 0 && indents[open - 1] >= indent) {
                open--;
            }
        }
        int owner = open == 0 ? Marks.NONE : owners[open - 1];
        for (int i = 0; i < open; i++) {
            if (owners[i] != Marks.NONE && (i == 0 || owners[i] != owners[i - 1])) {
                marks.end(owners[i], lastEnd);
            }
        }
        int i = 0;
        while (isRole(i, Word.Role.MODIFIER) && isRole(i + 1, Word.Role.DECLARES)) {
            i++;
        }
        if (isRole(i, Word.Role.DECLARES)
                && (isName(i + 1) || isRole(i + 1, Word.Role.DECLARES) && tokenWords[i + 1].isName())
                && (!tokenWords[i].isName() || isSign(i + 2, '=') || isSign(i + 2, '['))) {
            declared(i, owner, indent);
        } else if (tokenWords[0] != null && !tokenWords[0].isName() && tokenWords[0].role() == Word.Role.STATEMENT) {
            open(indent, owner); // a block of the same owner
        } else if (owner == Marks.NONE || marks.kind(owner) == Kind.CLASS) {
            assigned(owner);
        } else if (bracketEquals > 0 || isSign(3, ':')) {
            int type = marks.parent(owner);
            if (type != Marks.NONE && marks.kind(type) == Kind.CLASS && marks.kind(owner) == Kind.METHOD) {
                for (int k = 0; isSelf(k); k += 4) { // self.a = self.b = …
                    if ((isSign(k + 3, '=') && !isSign(k + 4, '=') || isSign(k + 3, ':'))
                            && !marks.knows(type, tokenStarts[k + 2], tokenEnds[k + 2])) {
                        marks.end(
                                marks.add(Kind.FIELD, type, tokenStarts[0], tokenStarts[k + 2], tokenEnds[k + 2]),
                                lastEnd);
                    }
                }
            }
        }
        count = 0;
        bracketEquals = -1;
    }

    private boolean isSelf(int token) {
        return isName(token)
                && isSign(token + 1, '.')
                && isName(token + 2)
                && tokenEnds[token] - tokenStarts[token] == 4
                && text[tokenStarts[token]] == 's'
                && text[tokenStarts[token] + 1] == 'e'
                && text[tokenStarts[token] + 2] == 'l'
                && text[tokenStarts[token] + 3] == 'f';
    }

    private void declared(int keyword, int owner, int indent) {
        Kind kind = tokenWords[keyword].kind();
        if (kind == Kind.FUNCTION && owner != Marks.NONE && marks.kind(owner) == Kind.CLASS) {
            kind = Kind.METHOD;
        }
        int mark = marks.add(kind, owner, tokenStarts[0], tokenStarts[keyword + 1], tokenEnds[keyword + 1]);
        marks.headEnd(mark, lastEnd);
        marks.end(mark, lastEnd);
        if (kind == Kind.TYPE) {
            return;
        }
        if (kind == Kind.CLASS) {
            int depth = 0;
            int last = -1;
            for (int i = keyword + 2; i < count; i++) {
                if (isSign(i, '(') || isSign(i, '[')) {
                    depth++;
                    last = isSign(i, '(') && depth == 1 ? -1 : last;
                } else if (depth == 1 && (isSign(i, ',') || isSign(i, ')')) && last >= 0) {
                    marks.add(Kind.SUPERTYPE, mark, tokenStarts[last], tokenStarts[last], tokenEnds[last]);
                    last = -1;
                    depth -= isSign(i, ')') ? 1 : 0;
                } else if (isSign(i, ')') || isSign(i, ']')) {
                    depth--;
                } else if (depth == 1 && isSign(i, '=')) {
                    last = -1; // metaclass=…
                    while (i + 1 < count && !isSign(i + 1, ',') && !isSign(i + 1, ')')) {
                        i++;
                    }
                } else if (depth == 1 && isName(i)) {
                    last = i;
                }
            }
        }
        if (isSign(count - 1, ':') || count == LONGEST_HEAD) {
            open(indent, mark);
        }
    }

    private void open(int indent, int owner) {
        if (open == indents.length) {
            indents = Arrays.copyOf(indents, open * 2);
            owners = Arrays.copyOf(owners, open * 2);
        }
        if (open > 0 && indents[open - 1] == indent || open >= 500) {
            return;
        }
        indents[open] = indent;
        owners[open++] = owner;
    }

    /** {@code name = …}, {@code name: Type}, {@code a, b = …}, {@code a = b = …}. */
    private void assigned(int owner) {
        boolean isAnnotated = isName(0) && isSign(1, ':') && isName(0);
        if (isAnnotated) {
            add(owner, 0);
            return;
        }
        int from = 0;
        for (int i = 0; i < count && bracketEquals >= 0 && bracketEquals < LONGEST_HEAD; i++) {
            if (!isSign(i, '=') || i < bracketEquals) {
                continue;
            }
            int depth = 0;
            for (int k = from; k < i; k++) {
                depth += isSign(k, '[') || isSign(k, '{') ? 1 : isSign(k, ']') || isSign(k, '}') ? -1 : 0;
                boolean isTarget = isName(k)
                        && !isSign(k - 1, '.')
                        && !isSign(k + 1, '.')
                        && !isSign(k + 1, '[')
                        && !isSign(k + 1, '(')
                        && (depth == 0 || tokenSigns[from] == '[');
                boolean isAlone = k == from
                        || isSign(k - 1, ',')
                        || isSign(k - 1, '(')
                        || isSign(k - 1, '*')
                        || isSign(k - 1, '[');
                if (isTarget
                        && isAlone
                        && (isSign(k + 1, ',') || isSign(k + 1, ')') || isSign(k + 1, ']') || k + 1 == i)
                        && isTuple(from, i)) {
                    add(owner, k);
                }
            }
            from = i + 1;
            if (!isPlainTarget(from)) {
                return;
            }
        }
    }

    /** Whether nothing but names, commas and brackets is assigned to. */
    private boolean isTuple(int from, int to) {
        for (int i = from; i < to; i++) {
            if (!isName(i)
                    && !isSign(i, ',')
                    && !isSign(i, '(')
                    && !isSign(i, ')')
                    && !isSign(i, '*')
                    && !isSign(i, '[')
                    && !isSign(i, ']')
                    && !isSign(i, '.')
                    && tokenSigns[i] != '"') {
                return false;
            }
        }
        return true;
    }

    /** Whether another target of the assignment follows: {@code a = b = 1}. */
    private boolean isPlainTarget(int from) {
        int i = from;
        while (isName(i) && (isSign(i + 1, ',') || isSign(i + 1, '.'))) {
            i += 2;
        }
        return isName(i) && isSign(i + 1, '=') && !isSign(i + 2, '=');
    }

    private void add(int owner, int token) {
        if (!marks.knows(owner, tokenStarts[token], tokenEnds[token])) {
            int mark = marks.add(
                    owner == Marks.NONE ? Kind.VARIABLE : Kind.FIELD,
                    owner,
                    tokenStarts[0],
                    tokenStarts[token],
                    tokenEnds[token]);
            marks.headEnd(mark, lastEnd);
            marks.end(mark, lastEnd);
        }
    }

    @Override
    public void finish(int end) {
        brackets = 0;
        statement();
    }
}
