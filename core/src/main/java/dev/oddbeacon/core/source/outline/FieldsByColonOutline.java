package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;
import static dev.oddbeacon.core.source.language.Word.Role.STATEMENT;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** Rust: fields are names followed by a colon, and each constant of an enum may have fields. */
final class FieldsByColonOutline extends KeywordOutline {
    FieldsByColonOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    /** {@code const unsafe fn}: here const is one. */
    @Override
    int behindModifiers(int from) {
        int i = super.behindModifiers(from);
        boolean isModifier = isText(i, "const") && isRole(i + 1, MODIFIER) && !isText(i + 1, "mut");
        return isModifier ? super.behindModifiers(i + 1) : i;
    }

    @Override
    Role constantBody() {
        return Role.VALUES;
    }

    /** What a macro is given declares as what stands around it where items stand, and nothing elsewhere. */
    @Override
    void brace(int at) {
        int last = count - 1;
        int first = behindModifiers(top.head);
        boolean holdsItems = top.role == Role.FILE || top.role == Role.NAMESPACE || top.role == Role.TYPE;
        if (top.role == Role.VALUES) {
            push((byte) '{', Role.VALUES, top.mark, at);
        } else if (isSign(last, '!') && isWord(last - 1)) {
            boolean isStatement = first < last && behindChain(first) == last;
            Role role = holdsItems && isStatement ? top.role : Role.VALUES;
            push((byte) '{', role, top.mark, at).endsStatement = isStatement;
        } else if (isMacro(first)) {
            macro(at, (byte) '{').endsStatement = true;
        } else if (isRole(top.head, STATEMENT)) { // if let Some(x) = y {}
            push((byte) '{', Role.CODE, top.mark, at).endsStatement = true;
        } else if (isForeign()) {
            push((byte) '{', top.role, top.mark, at).endsStatement = true;
        } else {
            super.brace(at);
        }
    }

    private boolean isMacro(int first) {
        return isSign(first + 1, '!') && isRole(first, DECLARES) && isName(first + 2);
    }

    private Context macro(int at, byte bracket) {
        int mark = classify();
        Context inside = push(bracket, Role.VALUES, mark, at);
        inside.owned = mark;
        return inside;
    }

    /** {@code extern "C" {}}, {@code unsafe extern {}}. */
    private boolean isForeign() {
        if (count == top.head) {
            return false;
        }
        int last = types[count - 1] == LITERAL ? count - 2 : count - 1;
        return (top.role == Role.FILE || top.role == Role.NAMESPACE) && isText(last, "extern");
    }

    @Override
    void group(int at, byte sign) {
        if (top.role == Role.VALUES) {
            push(sign, Role.VALUES, top.mark, at);
        } else if (isMacro(behindModifiers(top.head))) {
            macro(at, sign);
        } else {
            super.group(at, sign);
        }
    }

    @Override
    boolean isEndedByComma() {
        return !isRole(behindModifiers(top.head), DECLARES);
    }

    private boolean isPath(int colon) {
        return isSign(colon + 1, ':') && starts[colon + 1] == ends[colon];
    }

    @Override
    int member(int first) {
        boolean isField = isName(first) && isSign(first + 1, ':') && !isPath(first + 1);
        return isField ? add(Kind.FIELD, first, first) : Marks.NONE;
    }
}
