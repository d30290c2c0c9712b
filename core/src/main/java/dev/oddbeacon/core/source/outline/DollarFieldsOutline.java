package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.STATEMENT;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** PHP: fields are names behind a dollar sign. */
final class DollarFieldsOutline extends KeywordOutline {
    DollarFieldsOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    @Override
    boolean holdsComponents(int last) {
        return isText(last, "__construct");
    }

    /** {@code if (…):} is no part of what follows, nor is {@code default:}. */
    @Override
    void after(int at, byte sign) {
        if (sign == ':'
                && top.role != Role.TYPE
                && top.role != Role.ENUM
                && top.open != '('
                && top.open != '['
                && (isRole(top.head, STATEMENT) || isText(top.head, "case"))
                && text[at - 1] != ':'
                && !(at + 1 < text.length && text[at + 1] == ':')) {
            endStatement(at + 1);
            return;
        }
        super.after(at, sign);
    }

    @Override
    boolean modifiersMakeMembers() {
        return true;
    }

    @Override
    int componentName(int token) {
        int i = token;
        while (i < count && !isSign(i, '$')) {
            i++;
        }
        return i + 1;
    }

    @Override
    int behindSign(int token) {
        return isSign(token, '&') ? token + 1 : token;
    }

    @Override
    int element(int first) {
        int i = isSign(first, '$') ? first + 1 : first;
        boolean isNamed = isSign(i - 1, '$') || isSign(i + 1, '=') || i + 1 == count;
        return isNamed ? super.element(i) : Marks.NONE;
    }

    @Override
    int member(int first) {
        int to = top.equals >= 0 ? top.equals : count;
        for (int i = top.head; i < to && !isRole(i, DECLARES); i++) {
            if (isSign(i, '$') && isWord(i + 1)) {
                top.list = Kind.FIELD;
                return add(Kind.FIELD, i + 1, i);
            }
        }
        return Marks.NONE;
    }
}
