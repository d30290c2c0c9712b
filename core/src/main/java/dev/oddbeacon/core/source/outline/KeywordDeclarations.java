package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/**
 * Declarations whose head says by a word what they are: reads heads, and declares what they say. What only some languages
 * have is for subclasses.
 */
abstract class KeywordDeclarations extends BraceOutline {
    private final boolean sigils; // our $name

    /** A member of a type that no word announces, from its first token. */
    int member(int first) {
        return Marks.NONE;
    }

    /** Whether a sign is a modifier of what follows. */
    boolean isModifierSign(int token) {
        return false;
    }

    /** Whether the group at a token is the receiver of a function: {@code func (r Type) name}. */
    boolean isReceiver(Kind kind, int token) {
        return false;
    }

    /** Behind a receiver in brackets: {@code fun ((A) -> B).then()}. */
    private int behindGroupReceiver(int i) {
        int dot = isSign(i + 1, '?') ? i + 2 : i + 1;
        return isGroup(i, '(') && isSign(dot, '.') && isWord(dot + 1) ? dot + 1 : i;
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

    boolean hasModifier(int from, int to, String word) {
        for (int i = from; i < to; i++) {
            if (isText(i, word)) {
                return true;
            }
        }
        return false;
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
        if (isRole(i, DECLARES)
                && !isGroup(i + 1, '(')
                && (isName(i + 1) || !words[i].isName())) { // enum class, fun interface, case object
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
        i = behindGroupReceiver(i);
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
            if (!isWord(next)) {
                break;
            }
            qualifierStart = qualifierStart == 0 ? starts[name] : qualifierStart;
            qualifierEnd = ends[name];
            name = next;
            i = behindAngles(next + 1);
        }
        while (kind == Kind.FUNCTION && isSign(i, ':') && isSign(i + 1, ':') && isName(i + 2)) { // sub A::b
            qualifierStart = qualifierStart == 0 ? starts[name] : qualifierStart;
            qualifierEnd = ends[name];
            name = i + 2;
            i = name + 1;
        }
        boolean inType = top.role == Role.TYPE || top.role == Role.ENUM;
        if (top.role == Role.CODE && !kind.isType() && !kind.isCallable() && kind != Kind.MACRO && !isOfPackage()) {
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
        boolean isOfFile = language.has("file-namespace")
                && (top.role == Role.FILE
                        || isOfPackage() && isStatement(ends[last])); // one takes the place of another
        int mark = marks.add(Kind.NAMESPACE, isOfFile ? Marks.NONE : top.mark, starts[top.head], starts[i], ends[last]);
        top.mark = isOfFile ? mark : top.mark;
        top.classified = true;
        return mark;
    }

    /** Whether what is declared in a block belongs to a package all the same: {@code BEGIN { our $x }}. */
    private boolean isOfPackage() {
        return language.has("sigils")
                && (top.mark == Marks.NONE || !marks.kind(top.mark).isCallable());
    }

    /** Whether a statement ends before a block begins. */
    private boolean isStatement(int from) {
        int at = from;
        while (at < text.length && text[at] != ';' && text[at] != '{' && text[at] != '\n') {
            at++;
        }
        return at < text.length && text[at] == ';';
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
        while (isSign(named, '&') || isSign(named, '\'') || isRole(named, MODIFIER) || isText(named, "dyn")) {
            named += isSign(named, '\'') ? 2 : 1; // &'a mut T
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

    KeywordDeclarations(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.sigils = language.has("sigils");
    }
}
