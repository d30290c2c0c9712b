package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.EXTENDS;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/**
 * Declarations that begin with a word that says what they are; this class alone is for Perl. Forms that only some
 * languages have are hooks, which their subclasses fill.
 */
class KeywordOutline extends KeywordDeclarations {
    private final boolean enumConstants;

    KeywordOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.enumConstants = language.has("enum-constants");
    }

    /** Whether the braces behind a token hold members of a type that has no name: {@code value: { … }}. */
    boolean isTypeLiteral(int last) {
        return false;
    }

    /** Whether braces that open behind a sign may be the body of the declaration at hand. */
    boolean mayOpenBody() {
        return true;
    }

    /** Whether braces behind a token hold statements, where they might be a value. */
    boolean holdsCode(int last) {
        return true;
    }

    /** Whether the token before a brace declares the names inside: {@code const { a, b } = …}. */
    boolean destructures(int last) {
        return false;
    }

    /** The role of the braces of a type that is declared by the word "type". */
    Role typeBody(int mark) {
        return Role.TYPE;
    }

    /** The role of the braces of an enum's constant. */
    Role constantBody() {
        return Role.TYPE;
    }

    /** Whether the parenthesis behind a token holds parameters that may be members too. */
    boolean holdsComponents(int last) {
        return false;
    }

    /** Whether a modifier makes a parameter of a constructor a member. */
    boolean modifiersMakeMembers() {
        return false;
    }

    /** The token of a parameter's name, at a token or after it. */
    int componentName(int token) {
        return token;
    }

    /** Whether a comma ends a member of a type. */
    boolean isEndedByComma() {
        return false;
    }

    /** Whether commas separate the names of one member of a type: {@code a, b int}. */
    boolean sharesTypes() {
        return false;
    }

    /** Whether names that are listed in code are declarations. */
    boolean listsInCode() {
        return false;
    }

    @Override
    void brace(int at) {
        Context around = top;
        boolean inType = around.role == Role.TYPE || around.role == Role.ENUM;
        int last = count - 1;
        boolean afterSign = last >= around.head && types[last] == SIGN && "=(,:[?|&+<!".indexOf(signs[last]) >= 0;
        boolean isTypeLiteral = isTypeLiteral(last);
        if (!around.classified
                && !isTypeLiteral
                && around.open != '['
                && around.role != Role.VALUES
                && around.role != Role.ARGUMENTS) {
            around.current = classify();
            around.classified = around.current != Marks.NONE;
        }
        int mark = around.current;
        if (destructures(last)) {
            Context inside = push((byte) '{', Role.PATTERN, around.mark, at);
            inside.list = around.role == Role.FILE || around.role == Role.NAMESPACE ? words[last].kind() : null;
            return;
        }
        if (mark != Marks.NONE && !isTypeLiteral && around.equals < 0 && (!afterSign || mayOpenBody())) {
            Kind kind = marks.kind(mark);
            if (kind.isType() || kind.isUse()) {
                bases(mark);
            }
            marks.headEnd(mark, lastEnd);
            Role role = body(mark, around.role);
            Context inside = push((byte) '{', role, mark, at);
            inside.owned = mark;
            inside.endsStatement =
                    around.role != Role.ENUM && kind != Kind.VARIABLE && kind != Kind.FIELD && kind != Kind.CONSTANT
                            || kind == Kind.FIELD && language.has("accessors");
            return;
        }
        boolean isValue = around.open == '('
                || around.open == '['
                || around.role == Role.VALUES
                || afterSign
                || around.equals >= 0;
        if (anonymousType(last)) {
            int owner = around.equals >= 0 && mark != Marks.NONE ? mark : around.mark;
            push((byte) '{', Role.TYPE, owner, at).endsStatement = false;
            return;
        }
        boolean isCode = holdsCode(last);
        Context inside = push(
                (byte) '{',
                isTypeLiteral && inType || isTypeLiteral && !isArrow(last) || !isCode && isValue
                        ? Role.VALUES
                        : Role.CODE,
                around.equals >= 0 && mark != Marks.NONE ? mark : around.mark,
                at);
        inside.endsStatement = !isValue && !isTypeLiteral;
    }

    /** The role of a declaration's braces. */
    private Role body(int mark, Role around) {
        Kind kind = marks.kind(mark);
        if (kind == Kind.NAMESPACE) {
            return Role.NAMESPACE;
        }
        if (kind == Kind.ENUM && enumConstants) {
            return Role.ENUM;
        }
        if (kind == Kind.CONSTANT && around == Role.ENUM) {
            return constantBody();
        }
        if (kind == Kind.TYPE) {
            return typeBody(mark);
        }
        return kind.isType() || kind.isUse() ? Role.TYPE : Role.CODE;
    }

    /** {@code object : A {}}, {@code = class extends A {}}, {@code new class {}}. */
    boolean anonymousType(int last) {
        for (int i = Math.max(top.head, last - 12); i <= last; i++) {
            if (isRole(i, DECLARES)
                    && words[i].kind().isType()
                    && words[i].kind() != Kind.TYPE
                    && words[i].kind() != Kind.ENUM
                    && !isName(i)
                    && !isSign(i - 1, '$') // $class
                    && !isSign(i - 1, ':') // Fare::class
                    && (i > top.head || top.open == '(')) {
                return true;
            }
        }
        return false;
    }

    @Override
    void group(int at, byte sign) {
        if (sign == '(' && top.role == Role.TYPE && holdsComponents(count - 1)) {
            push(sign, Role.COMPONENTS, top.mark, at);
        } else {
            super.group(at, sign);
        }
    }

    @Override
    void comma(int at) {
        switch (top.role) {
            case COMPONENTS -> {
                if (angles(top.head, count) > 0) {
                    token(SIGN, at, at + 1, (byte) ',', null);
                } else {
                    component();
                    count = top.head;
                }
            }
            case PATTERN -> {
                pattern();
                count = top.head;
            }
            case ARGUMENTS, VALUES -> count = top.head;
            case ENUM -> endStatement(at);
            case TYPE -> {
                if (angles(top.head, count) > 0 || sharesTypes()) {
                    token(SIGN, at, at + 1, (byte) ',', null);
                } else if (isEndedByComma()) {
                    endStatement(at);
                } else {
                    listElement(at);
                }
            }
            default -> listElement(at);
        }
    }

    /** Whether commas separate declarations of a kind. */
    boolean listsDeclarations() {
        return true;
    }

    /** {@code const a = 1, b = 2}: the next name follows. */
    private void listElement(int at) {
        if (top.role == Role.CODE && !listsInCode() || angles(top.equals >= 0 ? top.equals : top.head, count) > 0) {
            token(SIGN, at, at + 1, (byte) ',', null);
            return;
        }
        if (!top.classified) {
            top.current = classify();
        }
        Kind kind = top.current == Marks.NONE ? top.list : marks.kind(top.current);
        if (!listsDeclarations()
                || kind == null
                || kind.isType()
                || kind.isCallable()
                || kind.isUse()
                || kind == Kind.NAMESPACE) {
            token(SIGN, at, at + 1, (byte) ',', null);
            return;
        }
        clear(at);
        top.list = kind;
    }

    @Override
    void after(int at, byte sign) {
        int token = count - 1;
        if (sign == '='
                && top.equals < 0
                && token > top.head
                && !(at + 1 < text.length && text[at + 1] == '=')
                && !(types[token - 1] == SIGN && ends[token - 1] == at && "=!<>".indexOf(signs[token - 1]) >= 0)
                && top.role != Role.ARGUMENTS
                && top.role != Role.VALUES
                && top.role != Role.COMPONENTS
                && top.role != Role.PATTERN
                && angles(top.head, token) <= 0) {
            count--;
            if (!top.classified) {
                top.current = classify();
                top.classified = true;
            }
            token(SIGN, at, at + 1, sign, null);
            top.equals = count;
        }
    }

    @Override
    void end(int at) {
        switch (top.role) {
            case COMPONENTS -> component();
            case PATTERN -> pattern();
            case ARGUMENTS, VALUES -> {}
            case ENUM -> {
                if (!top.classified && count > top.head) {
                    top.current = classify();
                }
                if (at > 0 && at <= text.length && text[at - 1] == ';' && language.has("enum-members")) {
                    clear(at);
                    top.role = Role.TYPE;
                }
            }
            default -> {
                if (!top.classified && count > top.head) {
                    top.current = classify();
                    top.classified = true;
                }
                if (top.current != Marks.NONE
                        && (marks.kind(top.current).isType()
                                || marks.kind(top.current).isUse())
                        && count > top.head) {
                    if (marks.kind(top.current) != Kind.TYPE && top.equals < 0) {
                        bases(top.current);
                    }
                }
                if (top.current != Marks.NONE && top.equals < 0) {
                    marks.headEnd(top.current, lastEnd);
                }
            }
        }
    }

    /** A parameter of a constructor that is a member too. */
    private void component() {
        int i = top.head;
        boolean isMember = false;
        while (i < count) {
            if (isSign(i, '@') && isWord(i + 1)) {
                i = behindChain(i + 1);
                i = isSign(i, ':') && isWord(i + 1) ? behindChain(i + 1) : i; // @get:Name
                i += isGroup(i, '(') ? 1 : 0;
            } else if (isRole(i, MODIFIER) && isWordOrDollar(i + 1)) {
                isMember |= modifiersMakeMembers();
                i++;
            } else if (isRole(i, DECLARES) && isName(i + 1)) {
                isMember = true;
                i++;
            } else {
                break;
            }
        }
        i = componentName(i);
        if (isMember && (isName(i) || isSign(i - 1, '$') && isWord(i))) {
            marks.add(Kind.FIELD, top.mark, starts[top.head], starts[i], ends[i]);
        }
    }

    private boolean isWordOrDollar(int token) {
        return isWord(token) || isSign(token, '$') || isSign(token, '?');
    }

    private void pattern() {
        int last = top.equals >= 0 ? top.equals - 2 : count - 1;
        for (int i = top.head; i < count; i++) {
            if (isSign(i, '=')) {
                last = i - 1;
                break;
            }
        }
        if (top.list != null && last >= top.head && isName(last)) {
            marks.add(top.list, top.mark, starts[top.head], starts[last], ends[last]);
        }
    }

    private void bases(int mark) {
        int from = Math.max(top.head, top.nameToken + 1);
        if (marks.kind(mark) == Kind.TYPE || from >= count) {
            return;
        }
        int angles = 0;
        for (int i = from; i < count; i++) {
            angles += isSign(i, '<') ? 1 : isSign(i, '>') && !isArrow(i) ? -1 : 0;
            if (angles == 0 && (isRole(i, EXTENDS) || isSign(i, ':'))) {
                supertypes(mark, i + 1, count);
                return;
            }
        }
    }
}
