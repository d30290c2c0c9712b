package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Word;

/** SQL: what CREATE creates, and the columns of tables. */
final class StatementsOutline extends BraceOutline {
    private boolean feedBefore;

    StatementsOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    @Override
    public void line(int at) {
        super.line(at);
        feedBefore = true;
    }

    @Override
    public void word(int start, int end, Word word) {
        if (feedBefore
                && word.role() == Word.Role.STATEMENT
                && depth > 1
                && (start == 0 || text[start - 1] == '\n')) { // a bracket was forgotten
            finish(start);
        }
        feedBefore = false;
        super.word(start, end, word);
    }

    @Override
    void brace(int at) {
        push((byte) '{', Role.CODE, top.mark, at);
    }

    @Override
    void group(int at, byte sign) {
        if (depth == 1 && sign == '(') {
            declare();
            if (top.current != Marks.NONE && marks.kind(top.current) == Kind.TABLE && isName(count - 1)) {
                push(sign, Role.COMPONENTS, top.current, at).owned = top.current;
                return;
            }
        }
        super.group(at, sign);
    }

    @Override
    void comma(int at) {
        if (top.role == Role.COMPONENTS) {
            column();
            count = top.head;
        } else if (top.role == Role.ARGUMENTS) {
            count = top.head;
        } else {
            token(SIGN, at, at + 1, (byte) ',', null);
        }
    }

    private void column() {
        if (isName(top.head) && (isWord(top.head + 1) || top.head + 1 == count)) {
            int mark = marks.add(Kind.FIELD, top.mark, starts[top.head], starts[top.head], ends[top.head]);
            marks.end(mark, lastEnd);
        }
    }

    @Override
    void end(int at) {
        if (top.role == Role.COMPONENTS) {
            column();
        } else if (depth == 1) {
            declare();
        }
    }

    /** CREATE [OR REPLACE] … TABLE [IF NOT EXISTS] [schema.]name. */
    private void declare() {
        if (top.classified || count == top.head || !isRole(top.head, Word.Role.STATEMENT)) {
            return;
        }
        int i = top.head + 1;
        while (i < count && !isRole(i, Word.Role.DECLARES) && i < top.head + 24) {
            i++;
        }
        if (!isRole(i, Word.Role.DECLARES)) {
            return;
        }
        Kind kind = words[i].kind();
        i++;
        while (isRole(i, Word.Role.MODIFIER)) { // IF NOT EXISTS, CONCURRENTLY
            i++;
        }
        if (!isWord(i)) {
            return;
        }
        int name = behindChain(i) - 1;
        top.current = marks.add(kind, Marks.NONE, starts[top.head], starts[name], ends[name]);
        if (name > i) {
            marks.qualifier(top.current, starts[i], ends[name - 2]);
        }
        marks.headEnd(top.current, lastEnd);
        top.classified = true;
    }
}
