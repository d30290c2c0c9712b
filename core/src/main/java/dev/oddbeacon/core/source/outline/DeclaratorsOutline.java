package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.EXTENDS;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;

/** C and C++: declarators, macros, and definitions apart from what announces them. */
final class DeclaratorsOutline extends TypedOutline {
    private static final int LONGEST_NAME = 200;

    DeclaratorsOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    @Override
    boolean namesFollowTypes() {
        return true;
    }

    /** A function that returns a type begins like the type. */
    @Override
    boolean beginsType() {
        return super.beginsType() && !hasGroup(behindModifiers(top.head));
    }

    private boolean hasGroup(int from) {
        for (int i = from; i < count; i++) {
            if (isGroup(i, '(')) {
                return true;
            }
        }
        return false;
    }

    @Override
    int type(int keyword, char terminator) {
        Kind kind = words[keyword].kind();
        int i = keyword + 1;
        if (kind == Kind.NAMESPACE) {
            return isWord(i) && terminator != '=' && terminator != ';' ? namespaces(i) : Marks.NONE;
        }
        i += isRole(i, DECLARES) && !(isName(i) && !isName(i + 1)) ? 1 : 0; // enum class
        while (isGroup(i, '[') || isRole(i, MODIFIER) && !words[i].isName() || isGroup(i, '(')) {
            i++;
        }
        int name = -1;
        int names = 0;
        while (isName(i)
                && !(name >= 0 && isRole(i, MODIFIER))
                && !isRole(i, EXTENDS)) { // a macro may stand before the name
            if (name >= 0 && terminator == '{' && isGroup(i + 1, '(') && i + 2 == count && inCapitals(i)) {
                // enum Side TYPE(char) {}
                i += 2;
                break;
            }
            name = behindChain(i) - 1;
            names++;
            i = name + 1;
            if (isGroup(i, '(') && isName(i + 1)) {
                i++;
            }
        }
        i = behindAngles(i);
        while (isRole(i, MODIFIER)) {
            i++;
        }
        boolean isWhole = i >= count || isSign(i, ':') || isRole(i, EXTENDS);
        announced = isWhole && terminator == ';' && name >= 0 && names == 1 && !isText(top.head, "typedef");
        if (!isWhole || terminator != '{') {
            return Marks.NONE; // the type of a variable or of what a function returns, or announced only
        }
        int mark = marks.add(kind, top.mark, starts[top.head]);
        if (name >= 0) {
            marks.name(mark, starts[name], ends[name]);
            if (name > top.head + 2 && isSign(name - 1, ':') && isSign(name - 2, ':')) {
                marks.qualifier(mark, chainStart(name), ends[name - 3]);
            }
        }
        return typed(mark, name, i, terminator);
    }

    /** {@code namespace a::b}: one in the other. @return the last */
    private int namespaces(int first) {
        int mark = marks.add(Kind.NAMESPACE, top.mark, starts[top.head], starts[first], ends[first]);
        for (int i = first + 1; isSign(i, ':') && isSign(i + 1, ':') && isWord(i + 2); i += 3) {
            int name = isText(i + 2, "inline") && isWord(i + 3) ? ++i + 2 : i + 2;
            int inner = marks.add(Kind.NAMESPACE, mark, starts[top.head], starts[name], ends[name]);
            marks.endsWith(mark, inner);
            mark = inner;
        }
        return mark;
    }

    @Override
    int alias(int first, char terminator) {
        if (!isText(first, "using") || !isName(first + 1) || terminator != '=') {
            return Marks.NONE;
        }
        int mark = marks.add(Kind.TYPE, top.mark, starts[top.head], starts[first + 1], ends[first + 1]);
        marks.headEnd(mark, lastEnd);
        return mark;
    }

    /** {@code template <> void name<int>()}. */
    @Override
    boolean isGenericName(int name, int from, int found) {
        return found < 0 && name > from && isText(top.head, "template");
    }

    @Override
    boolean isInstantiation() {
        int first = isText(top.head, "extern") ? top.head + 1 : top.head;
        return isText(first, "template") && !isSign(first + 1, '<');
    }

    /** {@code Gauge() : value{1}, other(2) {}}: the first brace. */
    @Override
    boolean initialisesMember() {
        boolean isName = isName(count - 1) || isSign(count - 1, '>');
        if (!isName || top.equals >= 0 || top.role == Role.CODE || top.role == Role.VALUES || top.open == '(') {
            return false;
        }
        for (int i = top.head; i < count; i++) {
            if (isSign(i, ':')
                    && !isSign(i + 1, ':')
                    && !isSign(i - 1, ':')
                    && (isGroup(i - 1, '(') || isText(i - 1, "noexcept") || isRole(i - 1, MODIFIER))
                    && i > top.head + 1) {
                return !isRole(behindModifiers(top.head), DECLARES);
            }
        }
        return false;
    }

    /** {@code NS_BEGIN}, {@code Q_DECLARE(x)}, alone on its line. */
    @Override
    boolean isLineOfMacro(byte next, Word word) {
        boolean holdsDeclarations = top.role == Role.FILE || top.role == Role.NAMESPACE || top.role == Role.TYPE;
        if (!holdsDeclarations || next != WORD || !isName(top.head) || top.list != null) {
            return false;
        }
        int behind = isGroup(top.head + 1, '(') ? top.head + 2 : top.head + 1;
        boolean isMarked = word.role() == DECLARES || word.role() == MODIFIER;
        for (int i = starts[top.head]; i < ends[top.head]; i++) {
            isMarked |= text[i] == '_';
        }
        boolean isType = word.isName() && callFollows(); // HANDLE⏎ name(…)
        return behind == count && isMarked && !isType && inCapitals(top.head);
    }

    /** Whether the next line begins with a name and a parenthesis. */
    private boolean callFollows() {
        int start = firstName(lastEnd, Math.min(text.length, lastEnd + LONGEST_NAME));
        return start >= 0 && nameEnd < text.length && text[nameEnd] == '(';
    }

    private boolean inCapitals(int token) {
        for (int i = starts[token]; i < ends[token]; i++) {
            if (text[i] >= 'a' && text[i] <= 'z') {
                return false;
            }
        }
        return true;
    }

    /** Offset at which a name begins, its qualifiers included. */
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

    @Override
    Kind functionKind(boolean isTyped, char terminator) {
        return terminator == '{' ? Kind.FUNCTION : isTyped ? Kind.PROTOTYPE : null;
    }

    /** The token of a name, or of the tilde before it. */
    private int nameOrTilde(int name) {
        return isSign(name - 1, '~') ? name - 1 : name;
    }

    @Override
    int qualifierEnd(int name) {
        int before = nameOrTilde(name);
        boolean isQualified = isSign(before - 1, ':')
                && isSign(before - 2, ':')
                && before - 3 >= top.head
                && !isGroup(before - 3, '(');
        return isQualified ? before - 3 : -1;
    }

    @Override
    int qualifiedStart(int name) {
        int before = nameOrTilde(name);
        if (qualifierEnd(name) < 0) {
            return before;
        }
        int start = chainStart(before);
        int first = name;
        while (first > top.head && starts[first] > start) {
            first--;
        }
        return first;
    }

    @Override
    int initialised(int from) {
        return isName(count - 1) && count - 1 > from ? variable(from, count, '=') : Marks.NONE;
    }

    /** {@code SYSCALL_DEFINE1(name, …) {}}, {@code main() {}}. */
    @Override
    int madeByMacro(int from) {
        if (!isName(from) || !isGroup(from + 1, '(') || count != from + 2) {
            return Marks.NONE;
        }
        if (!inCapitals(from)) {
            return marks.add(Kind.FUNCTION, top.mark, starts[top.head], starts[from], ends[from]);
        }
        int start = firstName(starts[from + 1], ends[from + 1]);
        return start < 0 ? Marks.NONE : marks.add(Kind.FUNCTION, top.mark, starts[top.head], start, nameEnd);
    }

    @Override
    int variable(int from, int to, char terminator) {
        int last = lastOfName(from, beforeWidth(from, to));
        boolean isTypedef = isText(top.head, "typedef");
        boolean isExtern = isText(top.head, "extern") && terminator != '=';
        Kind kind =
                isTypedef ? Kind.TYPE : top.role == Role.TYPE ? Kind.FIELD : isExtern ? Kind.PROTOTYPE : Kind.VARIABLE;
        int mark;
        if (isGroup(last, '(') && isGroup(last - 1, '(')
                || isGroup(last, '(') && last > from && text[starts[last] + 1] == '*') { // int (*name)(int)
            int start = pointedAt(isGroup(last - 1, '(') ? last - 1 : last);
            if (start < 0) {
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

    /** The token after a bit field's name, where its width begins. */
    private int beforeWidth(int from, int to) {
        for (int i = from + 1; i < to; i++) {
            if (isSign(i, ':') && !isSign(i + 1, ':') && !isSign(i - 1, ':') && isName(i - 1)) {
                return i;
            }
        }
        return to;
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
}
