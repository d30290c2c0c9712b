package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;
import static dev.oddbeacon.core.source.language.Word.Role.STATEMENT;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** JavaScript and TypeScript: methods and fields of types are told by their shape, and braces may hold objects. */
final class ScriptOutline extends KeywordOutline {
    private final TextAhead ahead;

    ScriptOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.ahead = new TextAhead(text);
    }

    @Override
    boolean isTypeLiteral(int last) {
        boolean isCase = isRole(top.head, STATEMENT); // case x: {
        return last >= top.head && types[last] == SIGN && ":|&<,".indexOf(signs[last]) >= 0 && !isCase;
    }

    @Override
    boolean mayOpenBody() {
        return false;
    }

    @Override
    boolean holdsCode(int last) {
        return isArrow(last) || isGroup(last, '(');
    }

    @Override
    boolean destructures(int last) {
        return isRole(last, DECLARES)
                && !words[last].kind().isType()
                && !words[last].kind().isCallable()
                && top.equals < 0
                && top.role != Role.TYPE;
    }

    @Override
    boolean holdsComponents(int last) {
        return isText(last, "constructor");
    }

    @Override
    boolean modifiersMakeMembers() {
        return true;
    }

    @Override
    boolean isEndedByComma() {
        return !isRole(behindModifiers(top.head), DECLARES);
    }

    @Override
    boolean listsInCode() {
        return true;
    }

    @Override
    boolean isModifierSign(int token) {
        return isSign(token, '*');
    }

    @Override
    int behindModifiers(int from) {
        int i = super.behindModifiers(from);
        int last = isGroup(i - 1, '(') ? i - 2 : i - 1;
        boolean isName = last >= from
                && (top.role == Role.TYPE || top.role == Role.ENUM)
                && isRole(last, MODIFIER)
                && !words[last].isName()
                && (last + 1 >= count
                        || isGroup(last + 1, '(')
                        || types[last + 1] == SIGN && "?:=<!".indexOf(signs[last + 1]) >= 0);
        return isName ? last : i; // default(): a member may have any name
    }

    @Override
    boolean isDeclared(int token) {
        boolean isMember = (top.role == Role.TYPE || top.role == Role.ENUM) && !words[token].isName();
        boolean isImported = isText(token, "type") && isName(token + 1) && !isSetAhead(ends[token + 1]);
        return !isMember && !isImported && super.isDeclared(token); // function, class and the like are names of members
    }

    @Override
    int enumConstant(int token) {
        if (isWord(token)) {
            return add(Kind.CONSTANT, token, token);
        }
        return token < count && types[token] == LITERAL && ends[token] - starts[token] > 2
                ? quoted(Kind.CONSTANT, token)
                : Marks.NONE;
    }

    @Override
    int member(int first) {
        int i = isSign(first, '#') ? first + 1 : first;
        if (i >= count || isGroup(i, '[') || isGroup(i, '(') || types[i] == SIGN || isGroup(i, '{')) {
            return Marks.NONE;
        }
        if (isText(i, "new") && marks.kind(top.mark) == Kind.INTERFACE && (isGroup(i + 1, '(') || isSign(i + 1, '<'))) {
            return Marks.NONE; // what makes an object has no name
        }
        boolean isFunction = isGroup(i + 1, '(')
                || isSign(i + 1, '<')
                || isSign(i + 1, '?') && (isGroup(i + 2, '(') || isSign(i + 2, '<'));
        Kind kind = !isFunction ? Kind.FIELD : isText(i, "constructor") ? Kind.CONSTRUCTOR : Kind.METHOD;
        if (!isFunction
                && i + 1 < count
                && !isSign(i + 1, ':')
                && !isSign(i + 1, '=')
                && !isSign(i + 1, '?')
                && !isSign(i + 1, '!')) {
            return Marks.NONE;
        }
        if (types[i] != LITERAL) {
            return add(kind, i, i);
        }
        boolean isQuoted = ends[i] - starts[i] >= 3 && (text[starts[i]] == '"' || text[starts[i]] == '\'');
        return isQuoted ? quoted(kind, i) : Marks.NONE;
    }

    /** Whether a type gets a meaning behind its name, other than in {@code import { type Tide }}. */
    private boolean isSetAhead(int from) {
        int at = ahead.behindBlanks(from);
        return at < text.length && (text[at] == '=' || text[at] == '<' || text[at] == '/');
    }

    /** Declares what a literal names, between its quotes. */
    private int quoted(Kind kind, int token) {
        int mark = marks.add(kind, top.mark, starts[top.head], starts[token] + 1, ends[token] - 1);
        top.classified = true;
        return mark;
    }
}
