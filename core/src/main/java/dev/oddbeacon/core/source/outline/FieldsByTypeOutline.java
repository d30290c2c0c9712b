package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;

/** Go: fields are names followed by a type, functions may have a receiver, and declarations come in lists. */
final class FieldsByTypeOutline extends KeywordOutline {
    FieldsByTypeOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    @Override
    Role typeBody(int mark) {
        for (int i = Math.max(top.head, top.nameToken); i < count; i++) {
            if (isText(i, "struct") || isText(i, "interface")) {
                marks.kind(mark, isText(i, "struct") ? Kind.STRUCT : Kind.INTERFACE);
                return i == count - 1 ? Role.TYPE : Role.VALUES;
            }
        }
        return Role.VALUES;
    }

    /** {@code const ( a = 1 )}. */
    @Override
    void group(int at, byte sign) {
        Context around = top;
        int last = count - 1;
        boolean isList = sign == '('
                && last == around.head
                && isRole(last, DECLARES)
                && (around.role == Role.FILE || around.role == Role.CODE);
        if (!isList) {
            super.group(at, sign);
            return;
        }
        Kind kind = words[last].kind();
        Context inside = push(sign, Role.LIST, around.mark, at);
        inside.list = around.role == Role.CODE && kind != Kind.TYPE || kind.isCallable() ? null : kind;
    }

    /** The brace of {@code interface} in the head of a function is not its body. */
    @Override
    void brace(int at) {
        int last = count - 1;
        boolean isLiteral = isText(last, "struct") || isText(last, "interface");
        if (isLiteral && top.equals < 0 && isText(behindModifiers(top.head), "func")) {
            push((byte) '{', Role.VALUES, top.mark, at);
            return;
        }
        super.brace(at);
    }

    /** As the specification has it: behind a name, a value, a closing bracket, ++ and --. */
    @Override
    boolean mayEnd() {
        int last = count - 1;
        return types[last] != SIGN
                || (signs[last] == '+' || signs[last] == '-') && isSign(last - 1, (char) signs[last])
                || signs[last] == '.'
                        && last > top.head
                        && types[last - 1] == LITERAL
                        && isDigit(text[starts[last - 1]]); // 1.
    }

    private static boolean isDigit(byte c) {
        return c >= '0' && c <= '9';
    }

    /** {@code type Alias = struct {}} has a body like any other. */
    @Override
    void after(int at, byte sign) {
        boolean isAlias = sign == '='
                && (top.role == Role.LIST ? top.list == Kind.TYPE : isText(top.head, "type") && isName(top.head + 1));
        if (!isAlias) {
            super.after(at, sign);
        }
    }

    @Override
    boolean goesOn(byte type, byte sign, Word word) {
        return false;
    }

    @Override
    boolean isDeclared(int token) {
        return super.isDeclared(token) && (!words[token].kind().isCallable() || top.role == Role.FILE);
    }

    /** The blank name declares nothing. */
    @Override
    int add(Kind kind, int name, int keyword) {
        if (!isText(name, "_")) {
            return super.add(kind, name, keyword);
        }
        top.nameToken = name;
        top.classified = true;
        return marks.add(kind, top.mark, starts[top.head]);
    }

    @Override
    boolean sharesTypes() {
        return true;
    }

    @Override
    boolean isReceiver(Kind kind, int token) {
        return isGroup(token, '(') && kind.isCallable();
    }

    @Override
    void furtherNames(Kind kind, int from, int keyword) {
        for (int i = from; isSign(i, ',') && isName(i + 1); i += 2) {
            add(kind, i + 1, keyword);
        }
    }

    @Override
    void named(int mark, int behind) {
        if (marks.kind(mark) == Kind.TYPE && (isText(behind, "struct") || isText(behind, "interface"))) {
            marks.kind(mark, isText(behind, "struct") ? Kind.STRUCT : Kind.INTERFACE);
        }
    }

    @Override
    boolean declaresSeveral(Kind kind) {
        return false;
    }

    @Override
    int element(int first) {
        if (top.role != Role.LIST || top.list != Kind.TYPE) {
            return super.element(first);
        }
        if (!isName(first) || isSign(first + 1, '.')) {
            return Marks.NONE;
        }
        int mark = add(top.list, first, first);
        named(mark, first + 1);
        return mark;
    }

    @Override
    int member(int first) {
        boolean inInterface = marks.kind(top.mark) == Kind.INTERFACE;
        if (isName(first) && isGroup(first + 1, '(') && inInterface) {
            return add(Kind.METHOD, first, first);
        }
        int embedded = isSign(first, '*') ? first + 1 : first;
        if (isWord(embedded)) {
            int behind = behindChain(embedded);
            int after = isGroup(behind, '[') ? behind + 1 : behind;
            if ((after >= count || types[after] == LITERAL) && isName(behind - 1)) {
                marks.add(Kind.SUPERTYPE, top.mark, starts[first], starts[behind - 1], ends[behind - 1]);
                return Marks.NONE;
            }
        }
        if (inInterface || !isName(first)) {
            return Marks.NONE;
        }
        int mark = add(Kind.FIELD, first, first);
        furtherNames(Kind.FIELD, first + 1, first);
        return mark;
    }
}
