package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Word;

/** Shell: functions, aliases, and variables that are set outside functions. */
final class ShellOutline implements Outline {
    private final byte[] text;
    private final Marks marks;
    private int tokens; // of the command at hand
    private int firstStart;
    private int firstEnd;
    private boolean firstIsName;
    private int wordStart; // of the last word
    private int wordEnd = -1; // -1 if it may be no name
    private boolean declares; // the word function came before
    private boolean exports; // export, readonly, declare
    private byte lastSign;
    private int lastEnd;
    private int function = Marks.NONE; // whose body is open or to come
    private int pending = Marks.NONE;
    private int braces;
    private int bodyAt;

    ShellOutline(byte[] text, Marks marks) {
        this.text = text;
        this.marks = marks;
    }

    @Override
    public void word(int start, int end, Word word) {
        if (word.role() == Word.Role.DECLARES && tokens == 0) {
            declares = true;
            firstStart = start;
            return;
        }
        if (word.role() == Word.Role.MODIFIER && tokens == 0) {
            exports = true;
            return;
        }
        if (declares && tokens == 0) {
            pending = marks.add(Kind.FUNCTION, Marks.NONE, firstStart, start, end);
            declares = false;
        }
        if (tokens == 0) {
            firstStart = start;
            firstEnd = end;
            firstIsName = word.isName();
        } else if (lastSign == '-' && lastEnd == start && firstIsName && tokens == 2 && firstEnd == start - 1) {
            firstEnd = end; // a name with a hyphen
            tokens = 0;
        }
        wordStart = start;
        wordEnd = word.isName() ? end : -1;
        tokens = word.role() == Word.Role.STATEMENT ? 0 : tokens + 1;
        lastSign = 0;
        lastEnd = end;
    }

    @Override
    public void literal(int start, int end) {
        tokens++;
        lastSign = 0;
        lastEnd = end;
    }

    @Override
    public void sign(int at, byte sign) {
        if (sign == ')'
                && lastSign == '('
                && firstIsName
                && tokens == 2
                && function == Marks.NONE
                && pending == Marks.NONE) {
            pending = marks.add(Kind.FUNCTION, Marks.NONE, firstStart, firstStart, firstEnd);
            marks.headEnd(pending, at + 1);
        } else if (sign == '=' && (tokens == 1 && firstIsName || exports) && wordEnd == at && function == Marks.NONE) {
            boolean isAlias = wordStart >= 6 && text[wordStart - 6] == 'a' && text[wordStart - 2] == 's' && exports;
            if (!marks.knows(Marks.NONE, wordStart, wordEnd)) {
                marks.add(isAlias ? Kind.FUNCTION : Kind.VARIABLE, Marks.NONE, wordStart, wordStart, wordEnd);
            }
        } else if (sign == '{'
                && (at == 0 || text[at - 1] <= ' ' || text[at - 1] == ')')
                && at + 1 < text.length
                && text[at + 1] <= ' ') {
            if (pending != Marks.NONE && function == Marks.NONE) {
                function = pending;
                pending = Marks.NONE;
                bodyAt = braces;
            }
            braces++;
        } else if (sign == '}' && braces > 0 && at > 0 && (text[at - 1] <= ' ' || text[at - 1] == ';')) {
            braces--;
            if (function != Marks.NONE && braces == bodyAt) {
                marks.end(function, at + 1);
                function = Marks.NONE;
            }
        }
        lastEnd = at + 1;
        boolean ends = sign == ';' || sign == '|' || sign == '&' || sign == '{' || sign == ')' && pending == Marks.NONE;
        tokens = ends ? 0 : tokens + 1;
        exports &= !ends;
        lastSign = sign;
    }

    @Override
    public void line(int at) {
        tokens = 0;
        lastSign = 0;
        declares = false;
        exports = false;
        if (pending != Marks.NONE && !bodyFollows(at)) {
            pending = Marks.NONE;
        }
    }

    private boolean bodyFollows(int at) {
        int i = at;
        while (i < text.length && text[i] <= ' ' && text[i] >= 0) {
            i++;
        }
        return i < text.length && text[i] == '{';
    }

    @Override
    public void finish(int end) {
        if (function != Marks.NONE) {
            marks.end(function, lastEnd);
        }
    }
}
