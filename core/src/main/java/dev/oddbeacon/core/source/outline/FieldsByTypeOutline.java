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

    @Override
    boolean goesOn(byte type, byte sign, Word word) {
        if (top.role == Role.LIST && type == SIGN) {
            return sign == '.' || sign == ')' || sign == '=' || sign == '{';
        }
        return super.goesOn(type, sign, word);
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
            if ((behind >= count || types[behind] == LITERAL) && isName(behind - 1)) {
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
