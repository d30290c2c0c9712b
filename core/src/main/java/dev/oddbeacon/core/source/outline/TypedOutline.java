package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.EXTENDS;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;
import static dev.oddbeacon.core.source.language.Word.Role.STATEMENT;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** Declarations in which a type stands before the name. */
abstract class TypedOutline extends BraceOutline {
    boolean announced; // a type, without its body

    TypedOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    /** Whether names may be declared behind the body of a type: {@code struct {} name;}. */
    abstract boolean namesFollowTypes();

    /** Whether braces belong to {@code new Type()} and hold members. */
    boolean isAnonymousType() {
        return false;
    }

    /** Declares a type. @param keyword the token that says so */
    abstract int type(int keyword, char terminator);

    /** Whether a name before angles is that of a function: {@code int name<T>()}. */
    boolean isGenericName(int name, int from, int found) {
        return false;
    }

    /** The kind of a function outside of a type, or null if it is none there. */
    abstract Kind functionKind(boolean isTyped, char terminator);

    /** Declares another name of a type: {@code using Depth = double}. @param first the token of a statement's word */
    int alias(int first, char terminator) {
        return Marks.NONE;
    }

    /** Whether the head makes something that is declared elsewhere: {@code template class Gauge<int>}. */
    boolean isInstantiation() {
        return false;
    }

    /** Whether a brace is not the body of what the head declares, but the value of a member. */
    boolean initialisesMember() {
        return false;
    }

    /** The first token of a function's qualified name: {@code Berth::} of {@code Berth::depth}. */
    abstract int qualifiedStart(int name);

    /** The token that ends the qualifier of a name, or -1. */
    int qualifierEnd(int name) {
        return -1;
    }

    /** Declares the function that a macro with a body makes, if any. */
    int madeByMacro(int from) {
        return Marks.NONE;
    }

    /** A variable with its value in braces: {@code int x{3};}. */
    int initialised(int from) {
        return variable(from, count, '{');
    }

    /** A variable, or a field; its name ends before a token. */
    abstract int variable(int from, int to, char terminator);

    @Override
    void brace(int at) {
        Context around = top;
        if (initialisesMember()) {
            push((byte) '{', Role.VALUES, around.mark, at);
            return;
        }
        boolean isValue = around.equals >= 0 || around.role == Role.VALUES || around.open == '(' || around.open == '[';
        if (isValue || around.role == Role.CODE && !beginsType()) {
            Context inside = push(
                    (byte) '{',
                    isAnonymousType()
                            ? Role.TYPE
                            : isArrow(count - 1) || around.role == Role.CODE && !isList() ? Role.CODE : Role.VALUES,
                    around.mark,
                    at);
            inside.endsStatement = !isValue && inside.role == Role.CODE;
            return;
        }
        int mark = around.classified ? around.current : around.role == Role.ENUM ? constant() : classify('{');
        around.current = mark;
        around.classified = true;
        if (mark == Marks.NONE) {
            boolean isLinkage = isText(around.head, "extern") && count == around.head + 2;
            boolean isNamespace = isRole(around.head, DECLARES) && words[around.head].kind() == Kind.NAMESPACE;
            push(
                                    (byte) '{',
                                    isLinkage || isNamespace
                                            ? Role.NAMESPACE
                                            : around.role == Role.ENUM ? Role.VALUES : Role.CODE,
                                    around.mark,
                                    at)
                            .endsStatement =
                    around.role != Role.ENUM;
            return;
        }
        marks.headEnd(mark, lastEnd);
        Kind kind = marks.kind(mark);
        Context inside = push(
                (byte) '{',
                around.role == Role.ENUM
                        ? Role.TYPE
                        : kind == Kind.NAMESPACE
                                ? Role.NAMESPACE
                                : kind == Kind.ENUM ? Role.ENUM : kind.isType() ? Role.TYPE : Role.CODE,
                mark,
                at);
        inside.owned = mark;
        inside.endsStatement = around.role != Role.ENUM && !(kind.isType() && namesFollowTypes());
        if (kind.isType() && namesFollowTypes()) {
            around.current = Marks.NONE; // what follows is the name of a variable
            around.classified = false;
        }
    }

    /** Whether the head declares a type, which statements may. */
    boolean beginsType() {
        int i = behindModifiers(top.head);
        return isRole(i, DECLARES) && words[i].kind() != Kind.NAMESPACE && isDeclared(i);
    }

    /** Whether values follow: {@code new int[] {}}. */
    private boolean isList() {
        return isGroup(count - 1, '[')
                || isSign(count - 1, ',')
                || isSign(count - 1, '=')
                || isText(count - 1, "return");
    }

    @Override
    void comma(int at) {
        if (isText(count - 1, "operator")) {
            token(SIGN, at, at + 1, (byte) ',', null);
            return;
        }
        switch (top.role) {
            case ENUM -> {
                constant();
                clear(at);
            }
            case FILE, NAMESPACE, TYPE -> {
                if (top.equals >= 0 && angles(top.equals, count) > 0
                        || top.equals < 0 && angles(top.head, count) > 0
                        || top.equals < 0 && !top.classified && isBaseList()) {
                    token(SIGN, at, at + 1, (byte) ',', null);
                    return;
                }
                if (!top.classified) {
                    top.current = classify(',');
                }
                Kind list =
                        top.current != Marks.NONE && !marks.kind(top.current).isCallable()
                                ? top.list != null ? top.list : marks.kind(top.current)
                                : top.list;
                if (list == null) {
                    token(SIGN, at, at + 1, (byte) ',', null);
                    return;
                }
                clear(at);
                top.list = list;
            }
            case CODE -> token(SIGN, at, at + 1, (byte) ',', null);
            default -> count = top.head;
        }
    }

    /** Whether the comma stands among supertypes or members to be made: class A : B, C. */
    private boolean isBaseList() {
        int i = behindModifiers(top.head);
        if (isRole(i, DECLARES) && isDeclared(i) || top.list == null && isText(top.head, "template")) {
            for (int k = i; k < count; k++) {
                if (isSign(k, ':') || isRole(k, EXTENDS)) {
                    return true;
                }
            }
            return false;
        }
        for (int k = i; k < count; k++) { // Foo::Foo() : a(1), b(2)
            int behind = k + 1;
            while (isGroup(k, '(') && isRole(behind, MODIFIER) || isText(behind, "noexcept")) {
                behind++;
            }
            if (isGroup(k, '(') && isSign(behind, ':')) {
                return true;
            }
        }
        return false;
    }

    @Override
    void after(int at, byte sign) {
        int token = count - 1;
        if (sign == '='
                && top.equals < 0
                && token > top.head
                && angles(top.head, token) <= 0
                && (top.role == Role.FILE
                        || top.role == Role.NAMESPACE
                        || top.role == Role.TYPE
                        || top.role == Role.ENUM)) {
            boolean isOperator = isText(token - 1, "operator")
                    || isText(token - 2, "operator")
                    || at + 1 < text.length && text[at + 1] == '='
                    || types[token - 1] == SIGN
                            && ends[token - 1] == at
                            && "=!<+-*/%&|^".indexOf(signs[token - 1]) >= 0;
            if (isOperator) {
                return;
            }
            count--;
            if (!top.classified) {
                top.current = top.role == Role.ENUM ? constant() : classify('=');
                top.classified = true;
            }
            token(SIGN, at, at + 1, sign, null);
            top.equals = count;
        } else if (sign == ':'
                && token == top.head + 1
                && isWord(top.head)
                && !(at + 1 < text.length && text[at + 1] == ':')
                && top.role != Role.ENUM
                && top.open != '(') {
            clear(at + 1); // a label, or public:
        }
    }

    @Override
    void end(int at) {
        switch (top.role) {
            case ENUM -> {
                if (!top.classified) {
                    top.current = constant();
                }
                if (at > 0 && at <= text.length && text[at - 1] == ';') {
                    clear(at);
                    top.role = Role.TYPE;
                }
            }
            case FILE, NAMESPACE, TYPE -> {
                if (!top.classified && count > top.head) {
                    top.current = classify(';');
                }
            }
            default -> {}
        }
    }

    private int constant() {
        int i = behindModifiers(top.head);
        if (!isName(i)) {
            return Marks.NONE;
        }
        top.classified = true;
        return marks.add(Kind.CONSTANT, top.mark, starts[top.head], starts[i], ends[i]);
    }

    /** Behind modifiers, annotations and attributes. */
    int behindModifiers(int from) {
        int i = from;
        while (i < count) {
            if (isRole(i, MODIFIER)
                    && !isSign(i + 1, '-')
                    && (!words[i].isName() || isWord(i + 1) || isGroup(i + 1, '{'))) {
                boolean isAngled = isText(i, "template");
                i++;
                if (isAngled) {
                    i = behindAngles(i);
                } else if (isGroup(i, '(')
                        && (text[starts[i - 1]] == '_' || isText(i - 1, "alignas") || isText(i - 1, "explicit"))) {
                    i++;
                } else if (types[i - 1] == WORD && i < count && types[i] == LITERAL) {
                    i++; // extern "C"
                }
            } else if (isSign(i, '@') && isRole(i + 1, DECLARES)) {
                return i + 1;
            } else if (isSign(i, '@') && isWord(i + 1)) {
                i = behindChain(i + 1);
                i += isGroup(i, '(') ? 1 : 0;
            } else if (isGroup(i, '[') && (i == from || isGroup(i - 1, '['))) {
                i++;
            } else if (isText(i, "non") && isSign(i + 1, '-') && isText(i + 2, "sealed")) {
                i += 3;
            } else {
                break;
            }
        }
        return i;
    }

    /** Whether a word that may be a name declares something here. */
    boolean isDeclared(int token) {
        return !words[token].isName()
                || isRole(token + 1, DECLARES) && isName(token + 2)
                || isName(token + 1)
                        && (token + 2 >= count
                                || isGroup(token + 2, '(')
                                || isSign(token + 2, '<')
                                || isSign(token + 2, ':')
                                || isRole(token + 2, EXTENDS)
                                || isRole(token + 1, DECLARES)
                                || isGroup(token + 2, '{')
                                || isName(token + 2));
    }

    /** Declares what the head says. @return its number, -1 if it declares nothing, or not here */
    private int classify(char terminator) {
        top.classified = true;
        if (top.list != null) {
            return listed();
        }
        int i = behindModifiers(top.head);
        if (i < count && isRole(i, STATEMENT)) {
            return alias(i, terminator);
        }
        if (i >= count || isInstantiation()) {
            return Marks.NONE;
        }
        if (isRole(i, DECLARES) && isDeclared(i)) {
            announced = false;
            int mark = type(i, terminator);
            if (mark != Marks.NONE || announced || words[i].kind() == Kind.NAMESPACE || !namesFollowTypes()) {
                return mark;
            }
        }
        return member(i, terminator);
    }

    /** The next name of a list: {@code int a, *b, c[3];}. */
    private int listed() {
        int last = count - 1;
        while (last >= top.head && isGroup(last, '[')) {
            last--;
        }
        for (int k = top.head; k < last; k++) { // of what : ends
            if (isSign(k, ':')) {
                last = k - 1;
            }
        }
        int first = top.head;
        while (isSign(first, '*') || isSign(first, '&') || isRole(first, MODIFIER)) {
            first++;
        }
        if (first != last || !isName(last)) {
            if (isGroup(first, '(') && last > first && isGroup(last, '(')) {
                int start = lastName(starts[first], ends[first]);
                return start < 0 ? Marks.NONE : marks.add(top.list, top.mark, starts[top.head], start, nameEnd);
            }
            return Marks.NONE;
        }
        return marks.add(top.list, top.mark, starts[top.head], starts[last], ends[last]);
    }

    /** Declares a namespace whose name begins at a token. */
    int namespace(int first, char terminator) {
        int last = behindChain(first) - 1;
        int mark = marks.add(Kind.NAMESPACE, Marks.NONE, starts[top.head], starts[first], ends[last]);
        if (terminator == ';') { // the rest of the file
            top.mark = mark;
        }
        return mark;
    }

    /** Completes the declaration of a type, given the token behind its name. */
    int typed(int mark, int name, int behind, char terminator) {
        marks.headEnd(mark, lastEnd);
        marks.end(mark, lastEnd);
        top.nameToken = name;
        if (terminator != '(') {
            bases(mark, behind);
        }
        return mark;
    }

    /** Notes what a type extends, in the tokens behind its name. */
    void bases(int mark, int from) {
        for (int i = from; i < count; i++) {
            if (isSign(i, ':') || isRole(i, EXTENDS) && !words[i].isName()) {
                supertypes(mark, i + 1, count);
                return;
            }
        }
    }

    /** A function or a variable. */
    private int member(int from, char terminator) {
        int function = functionName(from);
        if (function >= 0) {
            return function(from, function, terminator);
        }
        if (terminator == '{' && top.role != Role.TYPE) {
            return isGroup(count - 1, '(') && top.role != Role.CODE ? madeByMacro(from) : Marks.NONE;
        }
        if (terminator == '{' && isConstructor(count - 1)) {
            return marks.add(
                    Kind.CONSTRUCTOR, top.mark, starts[top.head], starts[count - 1], ends[count - 1]); // of a record
        }
        if (terminator == '{') {
            return initialised(from);
        }
        return variable(from, count, terminator);
    }

    /** @return the token of the name of a function, -1 if the head declares none */
    private int functionName(int from) {
        int angles = 0;
        int found = -1;
        int generic = -1; // the name before <
        for (int i = from; i < count; i++) {
            if (isSign(i, '<') && !isText(i - 1, "operator")) {
                generic = angles++ == 0 && isName(i - 1) ? i - 1 : generic;
            } else if (isSign(i, '>') && !isArrow(i) && angles > 0) {
                angles--;
            } else if (angles == 0 && isSign(i, ':') && !isSign(i + 1, ':') && !isSign(i - 1, ':') && found >= 0) {
                break;
            } else if (isText(i, "operator") && !isName(i)) {
                for (int k = i + 1; k < count; k++) {
                    if (isGroup(k, '(') && (k > i + 1 || isGroup(k + 1, '('))) {
                        return i;
                    }
                }
            } else if (angles == 0 && isGroup(i, '(') && isSign(i - 1, '>') && isGenericName(generic, from, found)) {
                found = generic;
            } else if (angles == 0 && isGroup(i, '(') && i > from && isName(i - 1) && !isRole(i - 1, MODIFIER)) {
                boolean typed = i - 1 > from
                        && (isWord(i - 2)
                                || types[i - 2] == SIGN && "*&>:~]".indexOf(signs[i - 2]) >= 0
                                || isSign(i - 2, '.')
                                || isSign(i - 2, '?')
                                || isGroup(i - 2, '[')
                                || isGroup(i - 2, '(') && i - 2 == from);
                if (found < 0) {
                    found = i - 1;
                } else if (typed
                        && (!isTyped(found, from) || text[starts[found]] == '_' && text[starts[found] + 1] == '_')) {
                    found = i - 1;
                } else if (text[starts[found]] == '_' && isGroup(found + 1, '(') && found + 2 == i - 1) {
                    found = i - 1; // __printf(1, 2) name(…)
                }
            }
        }
        return found;
    }

    private boolean isTyped(int name, int from) {
        return name > from && (isWord(name - 1) || types[name - 1] == SIGN || isGroup(name - 1, '['));
    }

    private boolean isConstructor(int token) {
        return top.mark != Marks.NONE
                && marks.hasName(top.mark)
                && isName(token)
                && marks.isNamed(top.mark, starts[token], ends[token]);
    }

    private int function(int from, int name, char terminator) {
        int first = qualifiedStart(name);
        int qualifier = qualifierEnd(name);
        boolean isTyped = first > from && !onlyAngles(from, first);
        boolean isTypedef = isText(top.head, "typedef");
        Kind kind;
        if (top.role == Role.TYPE && !isTyped) {
            if (!isConstructor(name) && !isText(name, "operator") && !isSign(name - 1, '~')) {
                return Marks.NONE; // a macro
            }
            kind = isText(name, "operator") || isSign(name - 1, '~') ? Kind.METHOD : Kind.CONSTRUCTOR;
        } else if (!isTyped && qualifier < 0 && !isText(name, "operator")) {
            return terminator == '{' && top.role == Role.FILE ? madeByMacro(from) : Marks.NONE;
        } else if (isTypedef) {
            kind = Kind.TYPE;
        } else if (top.role == Role.TYPE) {
            kind = Kind.METHOD;
        } else if (qualifier >= 0) {
            kind = !isTyped && !isSign(name - 1, '~') && !isText(name, "operator") ? Kind.CONSTRUCTOR : Kind.METHOD;
        } else {
            kind = functionKind(isTyped, terminator);
            if (kind == null) {
                return Marks.NONE;
            }
        }
        if (terminator == ';' && qualifier >= 0) {
            return Marks.NONE;
        }
        int nameEnd = ends[name];
        if (isText(name, "operator")) {
            int k = name + 1;
            while (k < count && !(isGroup(k, '(') && (k > name + 1 || !isGroup(k + 1, '(')))) {
                k++;
            }
            nameEnd = ends[Math.max(name, Math.min(k, count) - 1)];
        }
        int mark = marks.add(kind, top.mark, starts[top.head], starts[name], nameEnd);
        if (qualifier >= 0) {
            marks.qualifier(mark, starts[first], ends[qualifier]);
        }
        marks.headEnd(mark, lastEnd);
        marks.end(mark, lastEnd);
        return mark;
    }

    private boolean onlyAngles(int from, int to) {
        return behindAngles(from) >= to && isSign(from, '<');
    }

    /** The last token of the name of a variable: before what follows it, such as brackets. */
    int lastOfName(int from, int to) {
        int last = to - 1;
        while (last > from
                && (isGroup(last, '[')
                        || isRole(last, MODIFIER)
                        || isGroup(last, '(') && (isRole(last - 1, MODIFIER) || isMacroSuffix(last)))) {
            last -= isGroup(last, '(') ? 2 : 1;
        }
        return last;
    }

    private boolean isMacroSuffix(int group) {
        return isName(group - 1) && group - 2 > top.head && isName(group - 2) && text[starts[group - 1]] == '_';
    }

    /** Whether a type may end with a token. */
    boolean isType(int token, int from) {
        return token >= from
                && (isWord(token)
                        || types[token] == SIGN && "*&>?:".indexOf(signs[token]) >= 0
                        || isGroup(token, '[')
                        || isGroup(token, '{')
                        || isGroup(token, '(') && (token == from || isRole(token - 1, MODIFIER) || isName(token - 1)));
    }
}
