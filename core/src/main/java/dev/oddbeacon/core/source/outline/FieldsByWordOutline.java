package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** Kotlin and Swift: a word announces fields too, those among the parameters of a type included. */
class FieldsByWordOutline extends KeywordOutline {
    private final boolean componentsByWord; // class A(val b: B)

    FieldsByWordOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.componentsByWord = language.has("components-by-word");
    }

    @Override
    void group(int at, byte sign) {
        Context around = top;
        if (sign == '(' && componentsByWord && mayHaveComponents()) {
            int first = behindModifiers(around.head);
            int keyword = isText(first, "case") && isRole(first + 1, DECLARES) ? first + 1 : first;
            if (isRole(keyword, DECLARES) && words[keyword].kind().isType() && endsName(count - 1)) {
                around.current = classify();
                around.classified = around.current != Marks.NONE;
                if (around.classified) {
                    push(sign, Role.COMPONENTS, around.current, at);
                    return;
                }
            }
        }
        super.group(at, sign);
    }

    private boolean mayHaveComponents() {
        return !top.classified
                && top.equals < 0
                && (top.role == Role.FILE
                        || top.role == Role.NAMESPACE
                        || top.role == Role.TYPE
                        || top.role == Role.CODE);
    }

    /** Whether the name of a type may end with a token. */
    private boolean endsName(int token) {
        return isName(token) || isSign(token, '>') || isGroup(token, '[') || isRole(token, MODIFIER);
    }

    @Override
    Kind constantInType(int keyword) {
        return isText(keyword, "case") ? Kind.CONSTANT : Kind.FIELD;
    }

    @Override
    Kind severalInType(Kind kind) {
        return Kind.FIELD;
    }
}
