package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.EXTENDS;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;
import static dev.oddbeacon.core.source.language.Word.Role.STATEMENT;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;

/**
 * Declarations that begin with a word that says what they are: Kotlin, Scala, Swift, Go, Rust, JavaScript, TypeScript,
 * PHP, Perl. Traits of a profile say what members of types look like that have no such word.
 */
final class KeywordOutline extends BraceOutline {
    private final boolean methodsInTypes; // name(…) { and name: Type, as in scripts
    private final boolean fieldsByColon; // name: Type,
    private final boolean fieldsByType; // name Type
    private final boolean dollars; // $name
    private final boolean sigils; // our $name
    private final boolean receivers; // func (r Type) name
    private final boolean enumConstants;
    private final boolean componentsByWord; // class A(val b: B)
    private final boolean allComponents; // case class A(b: B)
    private final boolean fieldsByWord; // val name, in a type
    private final boolean lists; // const ( a = 1 )

    KeywordOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.methodsInTypes = language.has("script-members");
        this.fieldsByColon = language.has("fields-by-colon");
        this.fieldsByType = language.has("fields-by-type");
        this.dollars = language.has("dollar-fields");
        this.sigils = language.has("sigils");
        this.receivers = language.has("receivers");
        this.enumConstants = language.has("enum-constants");
        this.componentsByWord = language.has("components-by-word");
        this.allComponents = language.has("case-components");
        this.fieldsByWord = language.has("fields-by-word");
        this.lists = language.has("lists");
    }

    @Override
    void brace(int at) {
        Context around = top;
        boolean inType = around.role == Role.TYPE || around.role == Role.ENUM;
        int last = count - 1;
        boolean afterSign = last >= around.head && types[last] == SIGN && "=(,:[?|&+<!".indexOf(signs[last]) >= 0;
        boolean isTypeLiteral = methodsInTypes
                && last >= around.head
                && (isSign(last, ':')
                        || isSign(last, '|')
                        || isSign(last, '&')
                        || isSign(last, '<')
                        || isSign(last, ','))
                && !isCase();
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
        if (mark != Marks.NONE && !isTypeLiteral && around.equals < 0 && !(afterSign && methodsInTypes)) {
            Kind kind = marks.kind(mark);
            if (kind.isType() || kind.isUse()) {
                bases(mark);
            }
            marks.headEnd(mark, lastEnd);
            Role role = kind == Kind.NAMESPACE
                    ? Role.NAMESPACE
                    : kind == Kind.ENUM && enumConstants
                            ? Role.ENUM
                            : kind == Kind.CONSTANT && around.role == Role.ENUM && !fieldsByColon
                                    ? Role.TYPE
                                    : kind == Kind.TYPE && fieldsByType
                                            ? goBody(mark)
                                            : kind.isType() || kind.isUse()
                                                    ? Role.TYPE
                                                    : kind == Kind.CONSTANT && around.role == Role.ENUM
                                                            ? Role.VALUES
                                                            : Role.CODE;
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
        boolean isCode = isArrow(last) || isGroup(last, '(') || !methodsInTypes;
        Context inside = push(
                (byte) '{',
                isTypeLiteral && inType || isTypeLiteral && !isArrow(last) || !isCode && isValue
                        ? Role.VALUES
                        : Role.CODE,
                around.equals >= 0 && mark != Marks.NONE ? mark : around.mark,
                at);
        inside.endsStatement = !isValue && !isTypeLiteral;
    }

    /** {@code const { a, b } = …}. */
    private boolean destructures(int last) {
        return methodsInTypes
                && isRole(last, DECLARES)
                && !words[last].kind().isType()
                && !words[last].kind().isCallable()
                && top.equals < 0
                && top.role != Role.TYPE;
    }

    /** Whether a colon belongs to {@code case x:}. */
    private boolean isCase() {
        return isRole(top.head, STATEMENT);
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

    /** What the braces of {@code type A struct {} or interface {}} hold. */
    private Role goBody(int mark) {
        for (int i = Math.max(top.head, top.nameToken); i < count; i++) {
            if (isText(i, "struct") || isText(i, "interface")) {
                marks.kind(mark, isText(i, "struct") ? Kind.STRUCT : Kind.INTERFACE);
                return i == count - 1 ? Role.TYPE : Role.VALUES;
            }
        }
        return Role.VALUES;
    }

    @Override
    void group(int at, byte sign) {
        Context around = top;
        int last = count - 1;
        if (lists
                && sign == '('
                && last == around.head
                && isRole(last, DECLARES)
                && (around.role == Role.FILE || around.role == Role.CODE)) {
            Context inside = push(sign, Role.LIST, around.mark, at);
            inside.list = around.role == Role.CODE && words[last].kind() != Kind.TYPE
                            || words[last].kind().isCallable()
                    ? null
                    : words[last].kind();
            return;
        }
        if (sign == '('
                && !around.classified
                && around.equals < 0
                && (around.role == Role.FILE
                        || around.role == Role.NAMESPACE
                        || around.role == Role.TYPE
                        || around.role == Role.CODE)) {
            int first = behindModifiers(around.head);
            int i = isText(first, "case") && isRole(first + 1, DECLARES) ? first + 1 : first;
            if (isRole(i, DECLARES)
                    && words[i].kind().isType()
                    && (componentsByWord || allComponents)
                    && (isName(last) || isSign(last, '>') || isGroup(last, '[') || isRole(last, MODIFIER))) {
                boolean all = allComponents && hasModifier(around.head, i, "case");
                around.current = classify();
                around.classified = around.current != Marks.NONE;
                if (around.classified) {
                    push(sign, Role.COMPONENTS, around.current, at).list = all ? Kind.FIELD : null;
                    return;
                }
            }
        }
        boolean isParameters = methodsInTypes && sign == '(' && around.role == Role.TYPE && isText(last, "constructor");
        if (isParameters || dollars && sign == '(' && around.role == Role.TYPE && isText(last, "__construct")) {
            push(sign, Role.COMPONENTS, around.mark, at);
            return;
        }
        super.group(at, sign);
    }

    private boolean hasModifier(int from, int to, String word) {
        for (int i = from; i < to; i++) {
            if (isText(i, word)) {
                return true;
            }
        }
        return false;
    }

    @Override
    boolean goesOn(byte type, byte sign, Word word) {
        if (top.role == Role.LIST && type == SIGN) {
            return sign == '.' || sign == ')' || sign == '=' || sign == '{';
        }
        return super.goesOn(type, sign, word);
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
                if (angles(top.head, count) > 0 || fieldsByType) {
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

    private boolean isEndedByComma() {
        return (methodsInTypes || fieldsByColon) && !isRole(behindModifiers(top.head), DECLARES);
    }

    /** {@code const a = 1, b = 2}: the next name follows. */
    private void listElement(int at) {
        if (top.role == Role.CODE && !methodsInTypes || angles(top.equals >= 0 ? top.equals : top.head, count) > 0) {
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
                isMember |= methodsInTypes || dollars;
                i++;
            } else if (isRole(i, DECLARES) && isName(i + 1)) {
                isMember = true;
                i++;
            } else {
                break;
            }
        }
        if (dollars) {
            while (i < count && !isSign(i, '$')) {
                i++;
            }
            i++;
        }
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

    private int behindModifiers(int from) {
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
            } else if (methodsInTypes && isSign(i, '*')) {
                i++;
            } else {
                break;
            }
        }
        return i;
    }

    private int classify() {
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
    private boolean isDeclared(int token) {
        Kind kind = words[token].kind();
        if ((top.role == Role.TYPE || top.role == Role.ENUM) && methodsInTypes && !words[token].isName()) {
            return false; // function, class and the like are names of members
        }
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
        if (receivers && isGroup(i, '(') && kind.isCallable()) {
            qualifierStart = receiver(i);
            qualifierEnd = nameEnd;
            i++;
        }
        i = behindAngles(i);
        if (isGroup(i, '(') || isGroup(i, '[')) {
            return several(kind, i);
        }
        if (dollars && isSign(i, '&') || sigils && (isSign(i, '$') || isSign(i, '@') || isSign(i, '%'))) {
            i++;
        }
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
        } else if (inType
                && (kind == Kind.VARIABLE || kind == Kind.CONSTANT && fieldsByWord && !isText(keyword, "case"))) {
            kind = Kind.FIELD;
        }
        int mark = add(kind, name, keyword);
        if (qualifierEnd > 0) {
            marks.qualifier(mark, qualifierStart, qualifierEnd);
        }
        for (int k = i; receivers && !kind.isType() && isSign(k, ',') && isName(k + 1); k += 2) {
            add(kind, k + 1, keyword);
        }
        if (kind == Kind.TYPE && fieldsByType && (isText(i, "struct") || isText(i, "interface"))) {
            marks.kind(mark, isText(i, "struct") ? Kind.STRUCT : Kind.INTERFACE);
        }
        top.list = kind.isType() || kind.isCallable() ? null : top.list;
        return mark;
    }

    private int add(Kind kind, int name, int keyword) {
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
        if (top.role == Role.CODE || kind.isType() || kind.isCallable() || lists) {
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
                        fieldsByWord && top.role == Role.TYPE ? Kind.FIELD : kind,
                        top.mark,
                        starts[top.head],
                        start,
                        nameEnd);
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
    private int element(int from) {
        int i = dollars && isSign(from, '$') ? from + 1 : from;
        if (top.role == Role.CODE || !isName(i) || isSign(i + 1, '.')) {
            return Marks.NONE;
        }
        if (dollars && !(isSign(i - 1, '$') || isSign(i + 1, '=') || i + 1 == count)) {
            return Marks.NONE;
        }
        if (top.role == Role.LIST && top.list == Kind.TYPE) {
            int mark = add(top.list, i, i);
            if (isText(i + 1, "struct") || isText(i + 1, "interface")) {
                marks.kind(mark, isText(i + 1, "struct") ? Kind.STRUCT : Kind.INTERFACE);
            }
            return mark;
        }
        for (int k = i + 1; receivers && isSign(k, ',') && isName(k + 1); k += 2) {
            add(top.list, k + 1, i);
        }
        return add(top.list, i, i);
    }

    private int enumConstant(int i) {
        if (isName(i)) {
            return add(Kind.CONSTANT, i, i);
        }
        if (methodsInTypes && i < count && types[i] == LITERAL && ends[i] - starts[i] > 2) {
            int mark = marks.add(Kind.CONSTANT, top.mark, starts[top.head], starts[i] + 1, ends[i] - 1);
            top.classified = true;
            return mark;
        }
        return methodsInTypes && isWord(i) ? add(Kind.CONSTANT, i, i) : Marks.NONE;
    }

    /** A member of a type that no word announces. */
    private int member(int i) {
        if (methodsInTypes) {
            return scriptMember(i);
        }
        if (dollars) {
            for (int k = top.head; k < (top.equals >= 0 ? top.equals : count) && !isRole(k, DECLARES); k++) {
                if (isSign(k, '$') && isWord(k + 1)) {
                    top.list = Kind.FIELD;
                    return add(Kind.FIELD, k + 1, k);
                }
            }
            return Marks.NONE;
        }
        if (fieldsByColon) {
            return isName(i) && isSign(i + 1, ':') && !isSign(i + 2, ':') ? add(Kind.FIELD, i, i) : Marks.NONE;
        }
        if (!fieldsByType) {
            return Marks.NONE;
        }
        if (isName(i) && isGroup(i + 1, '(') && marks.kind(top.mark) == Kind.INTERFACE) {
            return add(Kind.METHOD, i, i);
        }
        int first = isSign(i, '*') ? i + 1 : i;
        if (isWord(first)) {
            int behind = behindChain(first);
            boolean isEmbedded = behind >= count || types[behind] == LITERAL;
            if (isEmbedded && isName(behind - 1)) {
                marks.add(Kind.SUPERTYPE, top.mark, starts[i], starts[behind - 1], ends[behind - 1]);
                return Marks.NONE;
            }
        }
        if (marks.kind(top.mark) == Kind.INTERFACE || !isName(i)) {
            return Marks.NONE;
        }
        int mark = add(Kind.FIELD, i, i);
        for (int k = i + 1; isSign(k, ',') && isName(k + 1); k += 2) {
            add(Kind.FIELD, k + 1, i);
        }
        return mark;
    }

    private int scriptMember(int from) {
        int i = isSign(from, '#') ? from + 1 : from;
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
        if (types[i] == LITERAL) {
            if (ends[i] - starts[i] < 3 || text[starts[i]] != '"' && text[starts[i]] != '\'') {
                return Marks.NONE;
            }
            int mark = marks.add(kind, top.mark, starts[top.head], starts[i] + 1, ends[i] - 1);
            top.classified = true;
            return mark;
        }
        return add(kind, i, i);
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
