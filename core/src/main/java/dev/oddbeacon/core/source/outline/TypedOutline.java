package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.EXTENDS;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;
import static dev.oddbeacon.core.source.language.Word.Role.STATEMENT;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** Declarations in which a type stands before the name: C, C++, C#, Java. */
final class TypedOutline extends BraceOutline {
    private final boolean declarators; // struct {} name;
    private final boolean anonymous; // new Type() { members }
    private boolean announced; // a type, without its body
    private final boolean components; // record Name(Type name)

    TypedOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.declarators = language.has("declarators");
        this.anonymous = language.has("anonymous-classes");
        this.components = language.has("components");
    }

    @Override
    void brace(int at) {
        Context around = top;
        boolean isValue = around.equals >= 0 || around.role == Role.VALUES || around.open == '(' || around.open == '[';
        if (isValue || around.role == Role.CODE && !beginsType()) {
            Context inside = push(
                    (byte) '{',
                    anonymous && createsObject()
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
        inside.endsStatement = around.role != Role.ENUM && !(kind.isType() && declarators);
        if (kind.isType() && declarators) {
            around.current = Marks.NONE; // what follows is the name of a variable
            around.classified = false;
        }
    }

    /** Whether the head declares a type, which statements may. */
    private boolean beginsType() {
        int i = behindModifiers(top.head);
        return isRole(i, DECLARES) && words[i].kind() != Kind.NAMESPACE && isDeclared(i) && !hasGroup(i);
    }

    private boolean hasGroup(int from) {
        if (components) {
            return false;
        }
        for (int i = from; i < count; i++) {
            if (isGroup(i, '(')) {
                return true;
            }
        }
        return false;
    }

    /** Whether the last tokens are {@code new Type(…)}. */
    private boolean createsObject() {
        int i = count - 1;
        if (!isGroup(i--, '(')) {
            return false;
        }
        int angles = 0;
        for (; i >= top.head; i--) {
            if (isSign(i, '>')) {
                angles++;
            } else if (isSign(i, '<')) {
                angles--;
            } else if (angles == 0) {
                if (isText(i, "new")) {
                    return true;
                }
                if (!isName(i) && !isSign(i, '.') && !isSign(i, '@') && !isGroup(i, '(')) {
                    return false;
                }
            }
        }
        return false;
    }

    /** Whether values follow: {@code new int[] {}}. */
    private boolean isList() {
        return isGroup(count - 1, '[')
                || isSign(count - 1, ',')
                || isSign(count - 1, '=')
                || isText(count - 1, "return");
    }

    @Override
    void group(int at, byte sign) {
        Context around = top;
        if (components && sign == '(' && around.equals < 0 && around.role != Role.VALUES && !around.classified) {
            int i = behindModifiers(around.head);
            if (isRole(i, DECLARES) && words[i].kind() == Kind.RECORD && isDeclared(i)) {
                around.current = type(i, '(');
                around.classified = true;
                if (around.current != Marks.NONE) {
                    push(sign, Role.COMPONENTS, around.current, at);
                    return;
                }
            }
        }
        super.group(at, sign);
    }

    @Override
    void comma(int at) {
        switch (top.role) {
            case COMPONENTS -> {
                if (angles(top.head, count) <= 0) {
                    component();
                    count = top.head;
                } else {
                    token(SIGN, at, at + 1, (byte) ',', null);
                }
            }
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
            if (isGroup(k, '(') && isSign(k + 1, ':')) {
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
            case COMPONENTS -> component();
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

    private void component() {
        int last = count - 1;
        for (int i = top.head; i < count; i++) {
            if (isSign(i, '=')) {
                last = i - 1;
                break;
            }
        }
        while (last > top.head && isGroup(last, '[')) {
            last--;
        }
        if (last > top.head && isName(last)) {
            marks.add(Kind.FIELD, top.mark, starts[top.head], starts[last], ends[last]);
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
    private int behindModifiers(int from) {
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
    private boolean isDeclared(int token) {
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
            return listed(terminator);
        }
        int i = behindModifiers(top.head);
        if (i >= count || isRole(i, STATEMENT)) {
            return Marks.NONE;
        }
        if (isRole(i, DECLARES) && isDeclared(i)) {
            announced = false;
            int mark = type(i, terminator);
            if (mark != Marks.NONE || announced || words[i].kind() == Kind.NAMESPACE || !declarators) {
                return mark;
            }
        }
        return member(i, terminator);
    }

    /** The next name of a list: {@code int a, *b, c[3];}. */
    private int listed(char terminator) {
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

    private int type(int keyword, char terminator) {
        Kind kind = words[keyword].kind();
        int i = keyword + 1;
        if (kind == Kind.NAMESPACE) {
            if (!isWord(i) || terminator == '=' || terminator == ';' && declarators) {
                return Marks.NONE;
            }
            int last = behindChain(i) - 1;
            int mark = marks.add(kind, Marks.NONE, starts[top.head], starts[i], ends[last]);
            if (terminator == ';') { // the rest of the file
                top.mark = mark;
            }
            return mark;
        }
        if (kind == Kind.TYPE && !declarators) { // delegate int Name(…)
            for (int k = i; k < count; k++) {
                if (isGroup(k, '(') && isName(k - 1)) {
                    return marks.add(kind, top.mark, starts[top.head], starts[k - 1], ends[k - 1]);
                }
            }
            return Marks.NONE;
        }
        i += isRole(i, DECLARES) && !(isName(i) && !isName(i + 1)) ? 1 : 0; // enum class, record struct
        while (isGroup(i, '[') || isRole(i, MODIFIER) && !words[i].isName() || isGroup(i, '(') && declarators) {
            i++;
        }
        int name = -1;
        int names = 0;
        while (isName(i)
                && !(name >= 0 && isRole(i, MODIFIER))
                && !isRole(i, EXTENDS)) { // a macro may stand before the name
            name = behindChain(i) - 1;
            names++;
            i = name + 1;
            if (!declarators) {
                break;
            }
            if (isGroup(i, '(') && isName(i + 1)) {
                i++;
            }
        }
        i = behindAngles(i);
        while (isRole(i, MODIFIER)) {
            i++;
        }
        boolean isWhole = i >= count || isSign(i, ':') || isRole(i, EXTENDS) || !declarators;
        announced = isWhole && terminator == ';' && name >= 0 && names == 1 && !isText(top.head, "typedef");
        if (!isWhole || declarators && terminator != '{') {
            return Marks.NONE; // the type of a variable or of what a function returns, or announced only
        }
        int mark = marks.add(kind, top.mark, starts[top.head]);
        if (name >= 0) {
            marks.name(mark, starts[name], ends[name]);
            if (name > top.head + 2 && isSign(name - 1, ':') && isSign(name - 2, ':')) {
                marks.qualifier(mark, chainStart(name), ends[name - 3]);
            }
        }
        marks.headEnd(mark, lastEnd);
        marks.end(mark, lastEnd);
        top.nameToken = name;
        if (terminator != '(') {
            bases(mark, i);
        }
        return mark;
    }

    private void bases(int mark, int from) {
        for (int i = from; i < count; i++) {
            if (isSign(i, ':') || isRole(i, EXTENDS) && !words[i].isName()) {
                supertypes(mark, i + 1, count);
                return;
            }
        }
    }

    private int chainStart(int name) {
        int i = name;
        while (i - 3 >= top.head && isSign(i - 1, ':') && isSign(i - 2, ':') && (isWord(i - 3) || isSign(i - 3, '>'))) {
            i -= 3;
            if (isSign(i, '>')) {
                int angles = 0;
                while (i > top.head) {
                    angles += isSign(i, '>') ? 1 : isSign(i, '<') ? -1 : 0;
                    if (angles == 0) {
                        break;
                    }
                    i--;
                }
                i--;
            }
        }
        return starts[Math.max(i, top.head)];
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
        if (terminator == '{' && declarators) {
            return initialised(from);
        }
        return variable(from, count, terminator);
    }

    /** {@code int x{3};} */
    private int initialised(int from) {
        return isName(count - 1) && count - 1 > from ? variable(from, count, '=') : Marks.NONE;
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
            } else if (angles == 0
                    && isGroup(i, '(')
                    && isSign(i - 1, '>')
                    && generic > from
                    && found < 0
                    && language.has("generic-methods")) {
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
        int first = name;
        int qualifier = -1;
        if (declarators) {
            int before = isSign(name - 1, '~') ? name - 1 : name;
            if (isSign(before - 1, ':')
                    && isSign(before - 2, ':')
                    && before - 3 >= top.head
                    && !isGroup(before - 3, '(')) {
                qualifier = before - 3;
                int start = chainStart(before);
                while (first > top.head && starts[first] > start) {
                    first--;
                }
            } else {
                first = before;
            }
        } else {
            while (isSign(first - 1, '.') && isWord(first - 2)) {
                first -= 2;
            }
        }
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
            kind = terminator == '{' || terminator == '=' && language.has("members-only")
                    ? Kind.FUNCTION
                    : Kind.PROTOTYPE;
        }
        if (kind == Kind.PROTOTYPE && (language.has("members-only") || !isTyped || terminator == '=' && !isTyped)) {
            return Marks.NONE;
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

    /** {@code SYSCALL_DEFINE1(name, …) {}}, {@code main() {}}. */
    private int madeByMacro(int from) {
        if (!isName(from) || !isGroup(from + 1, '(') || count != from + 2 || !declarators) {
            return Marks.NONE;
        }
        boolean inCapitals = true;
        for (int i = starts[from]; i < ends[from]; i++) {
            inCapitals &= !(text[i] >= 'a' && text[i] <= 'z');
        }
        if (!inCapitals) {
            return marks.add(Kind.FUNCTION, top.mark, starts[top.head], starts[from], ends[from]);
        }
        int start = firstName(starts[from + 1], ends[from + 1]);
        return start < 0 ? Marks.NONE : marks.add(Kind.FUNCTION, top.mark, starts[top.head], start, nameEnd);
    }

    private int variable(int from, int to, char terminator) {
        int last = to - 1;
        for (int i = from + 1; i < to; i++) { // a bit field
            if (isSign(i, ':') && !isSign(i + 1, ':') && !isSign(i - 1, ':') && isName(i - 1) && declarators) {
                last = i - 1;
                break;
            }
        }
        while (last > from
                && (isGroup(last, '[')
                        || isRole(last, MODIFIER)
                        || isGroup(last, '(') && (isRole(last - 1, MODIFIER) || isMacroSuffix(last)))) {
            last -= isGroup(last, '(') ? 2 : 1;
        }
        boolean isTypedef = isText(top.head, "typedef");
        boolean isExtern = declarators && isText(top.head, "extern") && terminator != '=';
        Kind kind =
                isTypedef ? Kind.TYPE : top.role == Role.TYPE ? Kind.FIELD : isExtern ? Kind.PROTOTYPE : Kind.VARIABLE;
        if (language.has("members-only") && top.role != Role.TYPE) {
            return Marks.NONE;
        }
        int mark;
        if (isGroup(last, '(') && isGroup(last - 1, '(')
                || isGroup(last, '(') && last > from && text[starts[last] + 1] == '*') { // int (*name)(int)
            int pointer = isGroup(last - 1, '(') ? last - 1 : last;
            int start = pointedAt(pointer);
            if (start < 0 || !declarators) {
                return Marks.NONE;
            }
            mark = marks.add(kind, top.mark, starts[top.head], start, nameEnd);
        } else {
            if (last <= from || !isName(last) || !isType(last - 1, from)) {
                return Marks.NONE;
            }
            mark = marks.add(kind, top.mark, starts[top.head], starts[last], ends[last]);
            if (chainStart(last) < starts[last]) {
                marks.qualifier(mark, chainStart(last), ends[last - 3]);
            }
        }
        top.list = kind;
        for (int i = from; i < last; i++) { // typedef struct { … } name: the fields are those of name
            if (isGroup(i, '{')) {
                marks.adopt(mark);
            }
        }
        marks.headEnd(mark, lastEnd);
        marks.end(mark, lastEnd);
        return mark;
    }

    /** The name in {@code (*name)} and {@code (*name[3])}: the last one before any bracket inside. */
    private int pointedAt(int token) {
        int to = ends[token];
        for (int i = starts[token] + 1; i < ends[token]; i++) {
            if (text[i] == '[' || text[i] == '(' && text[i + 1] != '*') {
                to = i;
                break;
            }
        }
        return lastName(starts[token], to);
    }

    private boolean isMacroSuffix(int group) {
        return isName(group - 1) && group - 2 > top.head && isName(group - 2) && text[starts[group - 1]] == '_';
    }

    /** Whether a type may end with a token. */
    private boolean isType(int token, int from) {
        return token >= from
                && (isWord(token)
                        || types[token] == SIGN && "*&>?:".indexOf(signs[token]) >= 0
                        || isGroup(token, '[')
                        || isGroup(token, '{')
                        || isGroup(token, '(') && (token == from || isRole(token - 1, MODIFIER) || isName(token - 1)));
    }
}
