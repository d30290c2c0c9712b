package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;
import java.util.Arrays;

/**
 * Languages with braces. Keeps the tokens of the statement at hand, its <em>head</em>, and a stack of open brackets;
 * what stands in closed brackets becomes a single token of the head around them: when the brace of
 * {@code int depth(Berth b) {}} opens, the head is {@code int depth ()}. What a head declares is for the subclasses to say.
 */
abstract class BraceOutline implements Outline {
    static final byte WORD = 1;
    static final byte SIGN = 2;
    static final byte GROUP = 3;
    static final byte LITERAL = 4;
    private static final int DEEPEST = 400;
    private static final int LONGEST_HEAD = 4_096;

    /** The role of what stands between two brackets. */
    enum Role {
        FILE,
        NAMESPACE,
        TYPE,
        ENUM,
        CODE,
        VALUES,
        ARGUMENTS,
        COMPONENTS,
        LIST,
        PATTERN
    }

    /** An open bracket, or the file. */
    static final class Context {
        byte open;
        Role role;
        int mark; // what it is the inside of, or the nearest around; -1 for none
        int owned = Marks.NONE; // the mark that ends where this one does
        int head; // the first token of the statement at hand
        int opened; // the tokens that were there before it
        int start; // offset of the bracket
        boolean endsStatement; // whether its closing bracket ends the statement around
        Kind list; // what the names of a list declare
        // of the statement at hand:
        int current = Marks.NONE;
        int nameToken = -1;
        boolean classified;
        int equals = -1; // the first token behind =

        Context copy() {
            Context copy = new Context();
            copy.open = open;
            copy.role = role;
            copy.mark = mark;
            copy.owned = owned;
            copy.head = head;
            copy.opened = opened;
            copy.start = start;
            copy.endsStatement = endsStatement;
            copy.list = list;
            copy.current = current;
            copy.nameToken = nameToken;
            copy.classified = classified;
            copy.equals = equals;
            return copy;
        }
    }

    final byte[] text;
    final Language language;
    final Marks marks;
    final boolean endsAtLines;
    private final Directives directives;
    byte[] types = new byte[64];
    int[] starts = new int[64];
    int[] ends = new int[64];
    byte[] signs = new byte[64];
    Word[] words = new Word[64];
    int count;
    Context[] stack = new Context[16];
    int depth;
    Context top;
    int lastEnd;
    private int ignored; // brackets beyond the deepest
    private boolean feedBefore;

    BraceOutline(byte[] text, Language language, Marks marks) {
        this.text = text;
        this.language = language;
        this.marks = marks;
        this.endsAtLines = language.has("lines");
        this.directives = language.has("directives") ? new Directives(this) : null;
        push((byte) 0, Role.FILE, Marks.NONE, 0);
    }

    /** A brace opens: says what is inside. */
    abstract void brace(int at);

    /** A parenthesis or a square bracket opens. */
    void group(int at, byte sign) {
        push(sign, Role.ARGUMENTS, top.mark, at);
    }

    /** The statement at hand ends: declares what it has not declared yet. */
    abstract void end(int at);

    /** A comma between brackets. */
    abstract void comma(int at);

    /** Any other sign that has been added to the head. */
    void after(int at, byte sign) {}

    @Override
    public void word(int start, int end, Word word) {
        if (directives != null && directives.word(start, end)) {
            return;
        }
        before(WORD, (byte) 0, word);
        token(WORD, start, end, (byte) 0, word);
    }

    @Override
    public void literal(int start, int end) {
        if (directives != null && directives.isOpen()) {
            return;
        }
        before(LITERAL, (byte) 0, null);
        token(LITERAL, start, end, (byte) 0, null);
    }

    @Override
    public void line(int at) {
        if (directives != null) {
            directives.line(at);
        }
        feedBefore = true;
    }

    private void before(byte type, byte sign, Word word) {
        boolean first = feedBefore;
        feedBefore = false;
        if (first && ignored == 0 && isLineOfMacro(type, word)) {
            clear(lastEnd);
        }
        if (first
                && endsAtLines
                && ignored == 0
                && count > top.head
                && top.role != Role.ARGUMENTS
                && top.role != Role.COMPONENTS
                && mayEnd()
                && !goesOn(type, sign, word)) {
            endStatement(lastEnd);
        }
    }

    /** Whether the head is a macro that fills its line, given the first token of the next one. */
    boolean isLineOfMacro(byte next, Word word) {
        return false;
    }

    /** Whether a statement may end with the last token. */
    boolean mayEnd() {
        int last = count - 1;
        return types[last] == SIGN
                ? ">?!*_".indexOf(signs[last]) >= 0
                : types[last] != WORD || words[last].role() != Word.Role.EXTENDS;
    }

    /** Whether a token at the start of a line goes on with the statement before. */
    boolean goesOn(byte type, byte sign, Word word) {
        if (type == WORD) {
            return word.role() == Word.Role.EXTENDS;
        }
        return type == SIGN
                && (top.role == Role.TYPE || top.role == Role.ENUM
                        ? ".,=:?|&{)>".indexOf(sign) >= 0
                        : ".,=:?|&{)>+-*/%<([".indexOf(sign) >= 0);
    }

    @Override
    public void sign(int at, byte sign) {
        if (directives != null) {
            if (directives.isOpen()) {
                directives.sign(at, sign);
                return;
            }
            if (sign == '#' && (feedBefore || count == 0 && depth == 1) && directives.open(at)) {
                return;
            }
        }
        if (ignored > 0) {
            ignored +=
                    sign == '(' || sign == '[' || sign == '{' ? 1 : sign == ')' || sign == ']' || sign == '}' ? -1 : 0;
            return;
        }
        before(SIGN, sign, null);
        switch (sign) {
            case '(', '[', '{' -> {
                if (depth >= DEEPEST) {
                    ignored = 1;
                } else if (sign == '{') {
                    brace(at);
                } else {
                    group(at, sign);
                }
            }
            case ')' -> closeGroup(at, (byte) '(');
            case ']' -> closeGroup(at, (byte) '[');
            case '}' -> closeBrace(at);
            case ';' -> {
                if (top.open == '(' || top.open == '[') {
                    count = top.head;
                } else {
                    endStatement(at + 1);
                }
            }
            case ',' -> {
                comma(at);
                lastEnd = at + 1;
            }
            default -> {
                token(SIGN, at, at + 1, sign, null);
                after(at, sign);
            }
        }
    }

    void token(byte type, int start, int end, byte sign, Word word) {
        lastEnd = end;
        if (ignored > 0 || count - top.head >= LONGEST_HEAD) {
            return;
        }
        if (count == types.length) {
            types = Arrays.copyOf(types, count * 2);
            starts = Arrays.copyOf(starts, count * 2);
            ends = Arrays.copyOf(ends, count * 2);
            signs = Arrays.copyOf(signs, count * 2);
            words = Arrays.copyOf(words, count * 2);
        }
        types[count] = type;
        starts[count] = start;
        ends[count] = end;
        signs[count] = sign;
        words[count++] = word;
    }

    /** Opens a bracket. */
    Context push(byte open, Role role, int mark, int at) {
        Context context = new Context();
        context.open = open;
        context.role = role;
        context.mark = mark;
        context.head = count;
        context.opened = count;
        context.start = at;
        if (depth == stack.length) {
            stack = Arrays.copyOf(stack, depth * 2);
        }
        stack[depth++] = context;
        top = context;
        return context;
    }

    private void pop() {
        depth--;
        count = Math.min(count, top.opened);
        top = stack[depth - 1];
    }

    private void closeGroup(int at, byte open) {
        int level = depth - 1;
        while (level > 0 && stack[level].open != open && stack[level].open != '{') {
            level--;
        }
        if (level == 0 || stack[level].open != open) {
            return; // closes nothing
        }
        while (depth - 1 > level) {
            pop();
        }
        end(at);
        Context closed = top;
        if (closed.owned != Marks.NONE) {
            marks.end(closed.owned, at + 1);
        }
        pop();
        token(GROUP, closed.start, at + 1, open, null);
    }

    private void closeBrace(int at) {
        int level = depth - 1;
        while (level > 0 && stack[level].open != '{') {
            level--;
        }
        if (level == 0) {
            count = top.head;
            return;
        }
        while (depth - 1 > level) {
            pop();
        }
        endStatement(lastEnd);
        Context closed = top;
        if (closed.owned != Marks.NONE) {
            marks.end(closed.owned, at + 1);
        }
        pop();
        token(GROUP, closed.start, at + 1, (byte) '{', null);
        if (closed.endsStatement) {
            clear(at + 1);
        }
    }

    /** The statement ends here, whatever it was. */
    final void endStatement(int at) {
        end(at);
        clear(at);
    }

    /** Forgets the head. */
    final void clear(int at) {
        if (top.current != Marks.NONE) {
            marks.end(top.current, at);
        }
        top.current = Marks.NONE;
        top.nameToken = -1;
        top.classified = false;
        top.equals = -1;
        top.list = top.role == Role.LIST ? top.list : null;
        count = top.head;
    }

    @Override
    public void finish(int end) {
        if (directives != null) {
            directives.line(end);
        }
        while (depth > 1) {
            endStatement(lastEnd);
            if (top.owned != Marks.NONE) {
                marks.end(top.owned, lastEnd);
            }
            pop();
        }
        endStatement(lastEnd);
    }

    // what heads are made of

    boolean isSign(int token, char sign) {
        return token >= top.head && token < count && types[token] == SIGN && signs[token] == sign;
    }

    boolean isGroup(int token, char open) {
        return token >= top.head && token < count && types[token] == GROUP && signs[token] == open;
    }

    boolean isWord(int token) {
        return token >= top.head && token < count && types[token] == WORD;
    }

    /** Whether it is a word that may be a name. */
    boolean isName(int token) {
        return isWord(token) && words[token].isName();
    }

    boolean isRole(int token, Word.Role role) {
        return isWord(token) && words[token].role() == role && words[token] != null;
    }

    boolean isText(int token, String sample) {
        if (!isWord(token) || ends[token] - starts[token] != sample.length()) {
            return false;
        }
        for (int i = 0; i < sample.length(); i++) {
            if (text[starts[token] + i] != sample.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    /** Behind {@code <…>} if they begin at a token, else the token. */
    int behindAngles(int token) {
        if (!isSign(token, '<')) {
            return token;
        }
        int angles = 0;
        for (int i = token; i < count; i++) {
            if (isSign(i, '<')) {
                angles++;
            } else if (isSign(i, '>') && !isArrow(i) && --angles == 0) {
                return i + 1;
            }
        }
        return count;
    }

    /** Whether > is part of -> or =>. */
    boolean isArrow(int token) {
        return token > top.head
                && types[token - 1] == SIGN
                && ends[token - 1] == starts[token]
                && (signs[token - 1] == '-' || signs[token - 1] == '=');
    }

    /** Number of angle brackets left open in a range of tokens. */
    int angles(int from, int to) {
        int angles = 0;
        for (int i = from; i < to; i++) {
            if (isSign(i, '<')) {
                angles++;
            } else if (isSign(i, '>') && !isArrow(i)) {
                angles--;
            }
        }
        return angles;
    }

    /** Behind {@code A.b.C} or {@code A::b}, of which the first word is at a token. */
    int behindChain(int token) {
        int i = token + 1;
        while (i + 1 < count && (isSign(i, '.') || isSign(i, '\\')) && isWord(i + 1)) {
            i += 2;
        }
        while (i + 2 < count && isSign(i, ':') && isSign(i + 1, ':') && isWord(i + 2)) {
            i += 3;
        }
        return i;
    }

    /** Notes the supertypes that a list of types names: of each the last word before its arguments. */
    void supertypes(int mark, int from, int to) {
        int angles = 0;
        int last = -1;
        for (int i = from; i <= to; i++) {
            boolean ends = i == to || isSign(i, ',') || isRole(i, Word.Role.EXTENDS) || types[i] == GROUP;
            if (i < to && isSign(i, '<')) {
                angles++;
            } else if (i < to && isSign(i, '>') && !isArrow(i)) {
                angles--;
            } else if (angles == 0 && ends) {
                if (last >= 0) {
                    marks.add(Kind.SUPERTYPE, mark, starts[last], starts[last], this.ends[last]);
                }
                last = -1;
                if (i < to && types[i] == GROUP) { // arguments of a constructor; by Foo(x)
                    while (i + 1 < to && !isSign(i + 1, ',') && !isRole(i + 1, Word.Role.EXTENDS)) {
                        i++;
                    }
                }
            } else if (angles == 0 && isName(i)) {
                last = i;
            } else if (angles == 0 && i < to && isWord(i) && words[i].role() != Word.Role.MODIFIER) {
                if (last >= 0) {
                    marks.add(Kind.SUPERTYPE, mark, starts[last], starts[last], this.ends[last]);
                }
                return; // where, requires
            }
        }
    }

    /**
     * The last name in a range of the text: the type of a receiver, the name in {@code (*name)}.
     *
     * @return its start, -1 if there is none; {@link #nameEnd} is its end
     */
    int lastName(int from, int to) {
        int end = to;
        while (end > from) {
            while (end > from && !isNameByte(text[end - 1])) {
                end--;
            }
            int start = end;
            while (start > from && isNameByte(text[start - 1])) {
                start--;
            }
            if (start < end && !(text[start] >= '0' && text[start] <= '9')) {
                nameEnd = end;
                return start;
            }
            end = start;
        }
        return -1;
    }

    int firstName(int from, int to) {
        int start = from;
        while (start < to && !isNameByte(text[start])) {
            start++;
        }
        nameEnd = start;
        while (nameEnd < to && isNameByte(text[nameEnd])) {
            nameEnd++;
        }
        return start < to ? start : -1;
    }

    int nameEnd;

    static boolean isNameByte(byte c) {
        return c < 0 || c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' || c >= '0' && c <= '9' || c == '_' || c == '$';
    }
}
