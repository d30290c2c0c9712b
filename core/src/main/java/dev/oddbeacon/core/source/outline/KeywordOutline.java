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
class KeywordOutline extends BraceOutline {
    private final boolean sigils; // our $name
    private final boolean enumConstants;

    KeywordOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.sigils = language.has("sigils");
        this.enumConstants = language.has("enum-constants");
    }

    /** A member of a type that no word announces, from its first token. */
    int member(int first) {
        return Marks.NONE;
    }

    /** Whether the braces behind a token hold members of a type that has no name: {@code value: { … }}. */
    boolean isTypeLiteral(int last) {
        return false;
    }

    /** Whether braces that open behind a token may be the body of the declaration at hand. */
    boolean mayOpenBody(int last) {
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

    /** Whether a sign is a modifier of what follows. */
    boolean isModifierSign(int token) {
        return false;
    }

    /** Whether the group at a token is the receiver of a function: {@code func (r Type) name}. */
    boolean isReceiver(Kind kind, int token) {
        return false;
    }

    /** The token of a name that may have a sign in front. */
    int behindSign(int token) {
        return sigils && (isSign(token, '$') || isSign(token, '@') || isSign(token, '%')) ? token + 1 : token;
    }

    /** The kind of a constant in a type, announced by a word. */
    Kind constantInType(int keyword) {
        return Kind.CONSTANT;
    }

    /** Declares the names that follow another behind commas: {@code var a, b int}. */
    void furtherNames(Kind kind, int from, int keyword) {}

    /** Called with a declaration and the token behind its name and angles. */
    void named(int mark, int behind) {}

    /** The kind of several names that are declared at once in a type. */
    Kind severalInType(Kind kind) {
        return kind;
    }

    /** Whether several names in brackets may be declared at once: {@code val (a, b) = …}. */
    boolean declaresSeveral(Kind kind) {
        return top.role != Role.CODE && !kind.isType() && !kind.isCallable();
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
        if (mark != Marks.NONE && !isTypeLiteral && around.equals < 0 && (!afterSign || mayOpenBody(last))) {
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
            push((byte) '{', Role.TYPE, around.mark, at).endsStatement = false;
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

    /** {@code object : A {}}, {@code = class extends A {}}, {@code new class {}}, {@code new A(x) {}}. */
    private boolean anonymousType(int last) {
        for (int i = Math.max(top.head, last - 12); i <= last && language.has("new-types"); i++) {
            if (isText(i, "new")) {
                return true;
            }
        }
        for (int i = Math.max(top.head, last - 12); i <= last; i++) {
            if (isRole(i, DECLARES)
                    && words[i].kind().isType()
                    && words[i].kind() != Kind.TYPE
                    && words[i].kind() != Kind.ENUM
                    && !isName(i)
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

    boolean hasModifier(int from, int to, String word) {
        for (int i = from; i < to; i++) {
            if (isText(i, word)) {
                return true;
            }
        }
        return false;
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
        if (kind == null || kind.isType() || kind.isCallable() || kind.isUse() || kind == Kind.NAMESPACE) {
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
        boolean isMember = top.list != null;
        while (i < count) {
            if (isSign(i, '@') && isWord(i + 1)) {
                i = behindChain(i + 1);
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
        if (isMember && isName(i)) {
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

    int behindModifiers(int from) {
        int i = from;
        while (i < count) {
            if (isSign(i, '@') && isWord(i + 1)) {
                i = behindChain(i + 1);
                i += isGroup(i, '(') ? 1 : 0;
            } else if (isSign(i, '#') && isGroup(i + 1, '[')) {
                i += 2;
            } else if (isSign(i, '#') && isSign(i + 1, '!') && isGroup(i + 2, '[')) {
                i += 3;
            } else if (isRole(i, MODIFIER)
                    && (!words[i].isName()
                            || isWord(i + 1)
                            || isSign(i + 1, '*')
                            || isSign(i + 1, '#')
                            || i + 1 < count && types[i + 1] == LITERAL
                            || isGroup(i + 1, '[')
                            || isGroup(i + 1, '(') && isWord(i + 2))) {
                i++;
                if (isGroup(i, '(') || i < count && types[i] == LITERAL && isWord(i + 1)) {
                    i++; // pub(crate), extern "C", private(set)
                } else if (isGroup(i, '[') && language.has("bracket-modifiers")) {
                    i++; // private[scope]
                }
            } else if (isModifierSign(i)) {
                i++;
            } else {
                break;
            }
        }
        return i;
    }

    int classify() {
        int i = behindModifiers(top.head);
        if (i >= count) {
            return Marks.NONE;
        }
        if (top.list != null) {
            return element(i);
        }
        if (isRole(i, DECLARES) && isDeclared(i)) {
            return declared(i);
        }
        return top.role == Role.ENUM ? enumConstant(i) : top.role == Role.TYPE ? member(i) : Marks.NONE;
    }

    /** Whether a word that may be a name declares something here. */
    boolean isDeclared(int token) {
        Kind kind = words[token].kind();
        if (kind == Kind.CONSTANT && isText(token, "case")) {
            return (top.role == Role.TYPE || top.role == Role.ENUM) && isName(token + 1) || isRole(token + 1, DECLARES);
        }
        return !words[token].isName()
                || isName(token + 1)
                || isRole(token + 1, DECLARES)
                || kind == Kind.CONSTRUCTOR
                        && (isGroup(token + 1, '(') || isSign(token + 1, '?') || isSign(token + 1, '<'))
                        && (top.role == Role.TYPE || top.role == Role.ENUM)
                || kind == Kind.NAMESPACE && token + 1 < count && types[token + 1] == LITERAL
                || kind == Kind.EXTENSION && isSign(token + 1, '<')
                || kind == Kind.MACRO && isSign(token + 1, '!');
    }

    private int declared(int keyword) {
        Kind kind = words[keyword].kind();
        int i = keyword + 1;
        if (isRole(i, DECLARES) && (isName(i + 1) || !words[i].isName())) { // enum class, fun interface, case object
            kind = kind.isType() && words[i].kind().isType() ? kind : words[i].kind();
            i++;
        }
        if (hasModifier(top.head, keyword, "enum") && kind == Kind.CLASS) {
            kind = Kind.ENUM;
        }
        if (kind == Kind.CONSTRUCTOR || kind == Kind.METHOD) {
            return add(kind, keyword, keyword);
        }
        if (kind == Kind.EXTENSION) {
            return extension(i);
        }
        while (isSign(i, '*')
                || isSign(i, '&')
                || isSign(i, '!') && i == keyword + 1
                || isRole(i, MODIFIER) && isWord(i + 1)) {
            i++;
        }
        int qualifierStart = 0;
        int qualifierEnd = 0;
        if (isReceiver(kind, i)) {
            qualifierStart = receiver(i);
            qualifierEnd = nameEnd;
            i++;
        }
        i = behindAngles(i);
        if (isGroup(i, '(') || isGroup(i, '[')) {
            return several(kind, i);
        }
        i = behindSign(i);
        if (kind == Kind.NAMESPACE) {
            return namespace(i);
        }
        if (!isWord(i) || !isName(i) && kind.isType()) {
            return operator(kind, i);
        }
        int name = i;
        i = behindAngles(i + 1);
        while ((isSign(i, '.') || isSign(i, '?') && isSign(i + 1, '.'))
                && kind != Kind.TYPE) { // String.name, List<T>?.name
            int next = isSign(i, '.') ? i + 1 : i + 2;
            if (!isName(next)) {
                break;
            }
            qualifierStart = qualifierStart == 0 ? starts[name] : qualifierStart;
            qualifierEnd = ends[name];
            name = next;
            i = behindAngles(next + 1);
        }
        boolean inType = top.role == Role.TYPE || top.role == Role.ENUM;
        if (top.role == Role.CODE && !kind.isType() && !kind.isCallable() && kind != Kind.MACRO) {
            return Marks.NONE; // a local variable
        }
        if (kind == Kind.FUNCTION && (inType || qualifierEnd > 0)) {
            kind = Kind.METHOD;
        } else if (inType && kind == Kind.VARIABLE) {
            kind = Kind.FIELD;
        } else if (inType && kind == Kind.CONSTANT) {
            kind = constantInType(keyword);
        }
        int mark = add(kind, name, keyword);
        if (qualifierEnd > 0) {
            marks.qualifier(mark, qualifierStart, qualifierEnd);
        }
        if (!kind.isType()) {
            furtherNames(kind, i, keyword);
        }
        named(mark, i);
        top.list = kind.isType() || kind.isCallable() ? null : top.list;
        return mark;
    }

    int add(Kind kind, int name, int keyword) {
        int mark = marks.add(kind, top.mark, starts[top.head], starts[name], ends[name]);
        marks.headEnd(mark, lastEnd);
        marks.end(mark, lastEnd);
        top.nameToken = name;
        top.classified = true;
        return mark;
    }

    /** {@code func == (a, b)}. */
    private int operator(Kind kind, int i) {
        int to = i;
        while (to < count && types[to] == SIGN && "=<>!+-*/%&|^~".indexOf(signs[to]) >= 0) {
            to++;
        }
        if (kind != Kind.FUNCTION || to == i || !(isGroup(to, '(') || isSign(to, '<'))) {
            if (isWord(i)
                    && kind.isCallable()
                    && !isName(i)
                    && (isGroup(i + 1, '(') || isSign(i + 1, '<'))) { // a reserved word for a name
                return add(top.role == Role.TYPE ? Kind.METHOD : kind, i, i);
            }
            return Marks.NONE;
        }
        int mark = marks.add(
                top.role == Role.TYPE ? Kind.METHOD : kind, top.mark, starts[top.head], starts[i], ends[to - 1]);
        top.classified = true;
        return mark;
    }

    private int receiver(int group) {
        int to = ends[group];
        for (int i = starts[group]; i < to; i++) {
            if (text[i] == '[') {
                to = i;
            }
        }
        return lastName(starts[group], to);
    }

    private int namespace(int i) {
        if (i < count && types[i] == LITERAL) { // module "name"
            if (ends[i] - starts[i] < 3) {
                return Marks.NONE;
            }
            int mark = marks.add(Kind.NAMESPACE, top.mark, starts[top.head], starts[i] + 1, ends[i] - 1);
            top.classified = true;
            return mark;
        }
        if (!isWord(i)) {
            return Marks.NONE;
        }
        int last = behindChain(i) - 1;
        int mark = marks.add(Kind.NAMESPACE, top.mark, starts[top.head], starts[i], ends[last]);
        if (language.has("file-namespace")) {
            top.mark = top.role == Role.FILE ? mark : top.mark;
        }
        top.classified = true;
        return mark;
    }

    /** {@code impl Trait for Type}, {@code extension Type: Protocol}. */
    private int extension(int from) {
        int i = behindAngles(from);
        int named = i;
        int angles = 0;
        boolean isFor = false;
        for (int k = i; k < count; k++) {
            angles += isSign(k, '<') ? 1 : isSign(k, '>') && !isArrow(k) ? -1 : 0;
            if (angles == 0 && isText(k, "for") && !isName(k)) {
                named = k + 1;
                isFor = true;
            }
        }
        while (isSign(named, '&') || isRole(named, MODIFIER)) {
            named++;
        }
        if (!isName(named)) {
            return Marks.NONE;
        }
        int name = behindChain(named) - 1;
        int mark = add(Kind.EXTENSION, name, from);
        if (isFor) {
            supertypes(mark, i, named - 1);
        }
        return mark;
    }

    /** {@code val (a, b) = …}, {@code const [a, b] = …}. */
    private int several(Kind kind, int group) {
        if (!declaresSeveral(kind)) {
            return Marks.NONE;
        }
        int at = starts[group];
        while (at < ends[group]) {
            int start = firstName(at, ends[group]);
            if (start < 0) {
                break;
            }
            start += sigils && text[start] == '$' ? 1 : 0;
            if (start < nameEnd) {
                marks.add(
                        top.role == Role.TYPE ? severalInType(kind) : kind, top.mark, starts[top.head], start, nameEnd);
            }
            at = nameEnd;
            while (at < ends[group] && text[at] != ',') {
                at++;
            }
        }
        top.classified = true;
        return Marks.NONE;
    }

    /** The next name of a list: {@code b} of {@code const a = 1, b = 2}. */
    int element(int first) {
        if (top.role == Role.CODE || !isName(first) || isSign(first + 1, '.')) {
            return Marks.NONE;
        }
        furtherNames(top.list, first + 1, first);
        return add(top.list, first, first);
    }

    /** The name of a constant of an enum. */
    int enumConstant(int token) {
        return isName(token) ? add(Kind.CONSTANT, token, token) : Marks.NONE;
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
