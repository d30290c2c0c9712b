package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;

/** Style sheets: classes and ids in selectors, custom properties, keyframes, mixins and variables. */
final class SelectorsOutline extends BraceOutline {
    SelectorsOutline(byte[] text, Language language, Marks marks) {
        super(text, language, marks);
    }

    @Override
    void brace(int at) {
        int mark = Marks.NONE;
        int rules = Marks.NONE;
        if (isSign(top.head, '@')) {
            mark = rule();
        } else {
            for (int i = top.head; i < count; i++) {
                if (isGroup(i, '(')) {
                    inside(starts[i], ends[i]); // :not(.name)
                }
                if ((isSign(i, '.') || isSign(i, '#')) && isWord(i + 1) && ends[i] == starts[i + 1]) {
                    int found = marks.add(
                            isSign(i, '.') ? Kind.SELECTOR : Kind.ID, top.mark, starts[i], starts[i + 1], ends[i + 1]);
                    marks.headEnd(found, lastEnd);
                    rules = rules == Marks.NONE ? found : rules;
                }
            }
        }
        int owned = mark == Marks.NONE ? rules : mark;
        if (owned != Marks.NONE) {
            marks.headEnd(owned, lastEnd);
        }
        Context inside = push((byte) '{', Role.CODE, top.mark, at);
        inside.owned = owned;
        inside.endsStatement = true;
    }

    /** Classes and ids in the brackets of a selector. */
    private void inside(int from, int to) {
        for (int i = from + 1; i + 1 < to; i++) {
            if (text[i] != '.' && text[i] != '#') {
                continue;
            }
            int end = i + 1;
            while (end < to && (isNameByte(text[end]) || text[end] == '-')) {
                end++;
            }
            if (end > i + 1 && !(text[i + 1] >= '0' && text[i + 1] <= '9')) {
                int found = marks.add(text[i] == '.' ? Kind.SELECTOR : Kind.ID, top.mark, i, i + 1, end);
                marks.headEnd(found, end);
            }
            i = end - 1;
        }
    }

    /** {@code @keyframes name}, {@code @mixin name}, {@code @function name}. */
    private int rule() {
        int i = top.head + 1;
        if (isText(i, "keyframes")
                || isText(i, "-webkit-keyframes")
                || isText(i, "mixin")
                || isText(i, "function")
                || isText(i, "layer")
                || isText(i, "container")
                || isText(i, "property")) {
            if (isWord(i + 1)) {
                return marks.add(
                        isText(i, "mixin") || isText(i, "function")
                                ? Kind.FUNCTION
                                : isText(i, "property") ? Kind.VARIABLE : Kind.SELECTOR,
                        top.mark,
                        starts[top.head],
                        starts[i + 1],
                        ends[i + 1]);
            }
        }
        return Marks.NONE;
    }

    @Override
    void comma(int at) {
        token(SIGN, at, at + 1, (byte) ',', null);
    }

    @Override
    void after(int at, byte sign) {
        if (sign != ':' || top.classified || top.open == '(') {
            return;
        }
        int i = top.head;
        boolean isCustom = count == i + 2
                && isWord(i)
                && ends[i] - starts[i] > 2
                && text[starts[i]] == '-'
                && text[starts[i] + 1] == '-';
        boolean isVariable = count == i + 3 && (isSign(i, '$') || isSign(i, '@')) && isWord(i + 1);
        if (isCustom || isVariable) {
            int name = isCustom ? i : i + 1;
            top.current = marks.add(Kind.VARIABLE, top.mark, starts[i], starts[name], ends[name]);
            top.classified = true;
        }
    }

    @Override
    void end(int at) {
        if (isSign(top.head, '@') && isText(top.head + 1, "property") && isWord(top.head + 2)) {
            marks.add(Kind.VARIABLE, top.mark, starts[top.head], starts[top.head + 2], ends[top.head + 2]);
        }
    }
}
