package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** Rust: fields are names followed by a colon, and each constant of an enum may have fields. */
final class FieldsByColonOutline extends KeywordOutline {
    FieldsByColonOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    @Override
    Role constantBody() {
        return Role.VALUES;
    }

    @Override
    boolean isEndedByComma() {
        return !isRole(behindModifiers(top.head), DECLARES);
    }

    @Override
    int member(int first) {
        boolean isField = isName(first) && isSign(first + 1, ':') && !isSign(first + 2, ':');
        return isField ? add(Kind.FIELD, first, first) : Marks.NONE;
    }
}
