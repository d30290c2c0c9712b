package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.EXTENDS;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** Java and C#: functions and variables are members of types. */
final class MembersOutline extends TypedOutline {
    private final boolean anonymousTypes; // new Type() { members }
    private final boolean genericMethods; // int name<T>()

    MembersOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.anonymousTypes = language.has("anonymous-classes");
        this.genericMethods = language.has("generic-methods");
    }

    @Override
    boolean namesFollowTypes() {
        return false;
    }

    @Override
    boolean isAnonymousType() {
        return anonymousTypes && createsObject();
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

    @Override
    void group(int at, byte sign) {
        Context around = top;
        if (sign == '(' && around.equals < 0 && around.role != Role.VALUES && !around.classified) {
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
    void brace(int at) {
        basesOfRecord();
        super.brace(at);
    }

    /** Whether we are behind the components of a record. */
    private boolean isBehindComponents() {
        return top.classified && top.current != Marks.NONE && marks.kind(top.current) == Kind.RECORD;
    }

    /** What a record extends stands behind its components. */
    private void basesOfRecord() {
        if (isBehindComponents()) {
            bases(top.current, behindAngles(top.nameToken + 1));
        }
    }

    @Override
    void comma(int at) {
        if (isBehindComponents()) { // implements Sounding, Deep
            token(SIGN, at, at + 1, (byte) ',', null);
        } else if (top.role != Role.COMPONENTS) {
            super.comma(at);
        } else if (angles(top.head, count) > 0) {
            token(SIGN, at, at + 1, (byte) ',', null);
        } else {
            component();
            count = top.head;
        }
    }

    @Override
    void end(int at) {
        if (top.role == Role.COMPONENTS) {
            component();
        } else {
            basesOfRecord(); // record Depth(int metres) : Base;
            super.end(at);
        }
    }

    /** A part of a record: {@code Type name}. */
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

    @Override
    int type(int keyword, char terminator) {
        Kind kind = words[keyword].kind();
        int i = keyword + 1;
        if (kind == Kind.NAMESPACE) {
            return isWord(i) && terminator != '=' ? namespace(i, terminator) : Marks.NONE;
        }
        if (kind == Kind.TYPE) {
            return delegate(i);
        }
        i += isRole(i, DECLARES) && !(isName(i) && !isName(i + 1)) ? 1 : 0; // record struct
        while (isGroup(i, '[') || isRole(i, MODIFIER) && !words[i].isName()) {
            i++;
        }
        int name = isName(i) && !isRole(i, EXTENDS) ? behindChain(i) - 1 : -1;
        int mark = marks.add(kind, top.mark, starts[top.head]);
        if (name >= 0) {
            marks.name(mark, starts[name], ends[name]);
            i = name + 1;
        }
        i = behindAngles(i);
        while (isRole(i, MODIFIER)) {
            i++;
        }
        return typed(mark, name, i, terminator);
    }

    /** {@code delegate int Name(…)}. */
    private int delegate(int from) {
        for (int i = from; i < count; i++) {
            if (isGroup(i, '(') && isName(i - 1)) {
                return marks.add(Kind.TYPE, top.mark, starts[top.head], starts[i - 1], ends[i - 1]);
            }
        }
        return Marks.NONE;
    }

    @Override
    boolean isGenericName(int name, int from, int found) {
        return genericMethods && name > from && found < 0;
    }

    @Override
    Kind functionKind(boolean isTyped, char terminator) {
        return terminator == '{' || terminator == '=' ? Kind.FUNCTION : null;
    }

    @Override
    int qualifiedStart(int name) {
        int first = name;
        while (isSign(first - 1, '.') && isWord(first - 2)) {
            first -= 2;
        }
        return first;
    }

    @Override
    int variable(int from, int to, char terminator) {
        int last = lastOfName(from, to);
        if (top.role != Role.TYPE || last <= from || !isName(last) || !isType(last - 1, from)) {
            return Marks.NONE;
        }
        int mark = marks.add(Kind.FIELD, top.mark, starts[top.head], starts[last], ends[last]);
        top.list = Kind.FIELD;
        marks.headEnd(mark, lastEnd);
        marks.end(mark, lastEnd);
        return mark;
    }
}
