package dev.oddbeacon.core.source.outline;

import static dev.oddbeacon.core.source.language.Word.Role.DECLARES;
import static dev.oddbeacon.core.source.language.Word.Role.MODIFIER;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;
import java.util.Arrays;
import java.util.List;

/**
 * Kotlin: a word announces everything, those parameters of a type that are fields included. Properties have accessors
 * behind them, and heads go on over lines.
 */
final class KotlinOutline extends FieldsByWordOutline {
    /** What may stand before the word "constructor". */
    private static final List<String> ACCESS =
            List.of("public", "private", "protected", "internal", "actual", "expect");

    private final TextAhead ahead;
    private int[] properties; // the last of each open bracket; made by the first
    private boolean isAccessor; // the statement at hand belongs to a property

    KotlinOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
        this.ahead = new TextAhead(text);
    }

    @Override
    Context push(byte open, Role role, int mark, int at) {
        Context context = super.push(open, role, mark, at);
        if (properties == null || depth >= properties.length) {
            properties = properties == null ? new int[16] : Arrays.copyOf(properties, depth * 2);
        }
        properties[depth] = Marks.NONE;
        return context;
    }

    @Override
    boolean goesOn(byte type, byte sign, Word word) {
        if (super.goesOn(type, sign, word)) {
            return true;
        }
        if (type == WORD && word.role() == Word.Role.STATEMENT) {
            return follows(lastEnd, "else");
        }
        boolean isType = top.current == Marks.NONE
                ? top.equals < 0 && isTypeHead()
                : top.equals < 0 && marks.kind(top.current).isType();
        return isType && constructorFollows();
    }

    /** Not between {@code fun <A>} and the name, nor behind {@code if (x)} and {@code else}. */
    @Override
    boolean mayEnd() {
        int keyword = isSign(count - 1, '>') ? behindModifiers(top.head) : count;
        boolean isHalf = isText(count - 1, "else") || isGroup(count - 1, '(') && isText(count - 2, "if");
        return super.mayEnd()
                && !isHalf
                && !(isRole(keyword, DECLARES) && behindAngles(keyword + 1) == count && keyword + 1 < count);
    }

    private boolean isTypeHead() {
        int first = behindModifiers(top.head);
        return isText(first, "class") && (isName(count - 1) || isSign(count - 1, '>'));
    }

    /** {@code class A⏎ @Inject⏎ internal constructor()}. */
    private boolean constructorFollows() {
        int at = lastEnd;
        while (true) {
            at = ahead.behindBlanksAndComments(at);
            if (at < text.length && text[at] == '@') {
                at = behindName(at + 1);
                if (at < text.length && text[at] == '(') {
                    while (at < text.length && text[at] != ')' && text[at] != '\n') {
                        at++;
                    }
                    at++;
                }
                continue;
            }
            int end = behindName(at);
            if (!isAccess(at, end)) {
                return ahead.is(at, end, "constructor");
            }
            at = end;
        }
    }

    private boolean isAccess(int start, int end) {
        for (String word : ACCESS) {
            if (ahead.is(start, end, word)) {
                return true;
            }
        }
        return false;
    }

    private int behindName(int from) {
        int at = from;
        while (at < text.length && (isNameByte(text[at]) || text[at] == '.' || text[at] == ':')) {
            at++;
        }
        return at;
    }

    private boolean follows(int from, String word) {
        int at = ahead.behindBlanksAndComments(from);
        int end = at + word.length();
        return ahead.startsWith(at, word) && (end == text.length || !isNameByte(text[end]));
    }

    /** {@code @get:Name("x")}, {@code @[A B]}. */
    @Override
    int behindModifiers(int from) {
        int i = super.behindModifiers(from);
        while (isSign(i, ':') && i > from && isWord(i + 1) || isSign(i, '@') && isGroup(i + 1, '[')) {
            i += 2;
            i = behindAngles(isGroup(i, '(') ? i + 1 : i);
            i = super.behindModifiers(i);
        }
        return i;
    }

    @Override
    int classify() {
        int i = behindModifiers(top.head);
        boolean mayBeAccessor = (isText(i, "get") || isText(i, "set")) && (i + 1 == count || isGroup(i + 1, '('));
        if (mayBeAccessor && properties[depth] != Marks.NONE) {
            isAccessor = true;
            top.classified = true;
            return properties[depth];
        }
        return super.classify();
    }

    @Override
    void brace(int at) {
        isAccessor = false;
        if (!top.classified
                && top.equals < 0
                && top.open != '['
                && top.role != Role.VALUES
                && top.role != Role.ARGUMENTS) {
            top.current = classify();
            top.classified = top.current != Marks.NONE;
        }
        boolean isBody = top.current != Marks.NONE && top.current == properties[depth] && top.equals < 0;
        if (isBody && isAccessor) {
            Context inside = push((byte) '{', Role.CODE, top.current, at);
            inside.owned = inside.mark;
            inside.endsStatement = true;
        } else {
            super.brace(at);
        }
    }

    @Override
    void end(int at) {
        super.end(at);
        if (top.current != Marks.NONE && !top.classified) {
            return;
        }
        if (top.current != Marks.NONE) {
            Kind kind = marks.kind(top.current);
            boolean isProperty = kind == Kind.FIELD || kind == Kind.CONSTANT || kind == Kind.VARIABLE;
            properties[depth] = isProperty ? top.current : Marks.NONE;
        }
    }

    /** {@code object : A {}}, wherever it stands. */
    @Override
    boolean anonymousType(int last) {
        int first = top.head;
        while (isRole(first, MODIFIER) || isText(first, "return")) {
            first++;
        }
        return isText(first, "object") && (first == last || isSign(first + 1, ':')) || super.anonymousType(last);
    }

    @Override
    boolean listsDeclarations() {
        return false;
    }
}
