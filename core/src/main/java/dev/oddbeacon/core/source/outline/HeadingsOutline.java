package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Found;

/** Markdown: headings, with # before or a line of = or - below, outside of fenced code. */
final class HeadingsOutline implements Outline {
    private static final int LEVELS = 6;

    private final byte[] text;
    private final Marks marks;
    private final Found found;
    private final int[] open = new int[LEVELS + 1]; // the mark of each level, -1 if none

    HeadingsOutline(byte[] text, Marks marks, Found found) {
        this.text = text;
        this.marks = marks;
        this.found = found;
        java.util.Arrays.fill(open, Marks.NONE);
    }

    @Override
    public void finish(int end) {
        int region = 0;
        int beforeStart = -1; // the line before, if it may be a heading
        int beforeEnd = -1;
        byte fence = 0;
        int fenceLength = 0;
        int line = 0;
        boolean frontMatter = end > 4 && text[0] == '-' && text[1] == '-' && text[2] == '-' && text[3] == '\n';
        while (line < end) {
            int next = line;
            while (next < end && text[next] != '\n') {
                next++;
            }
            int first = line;
            while (first < next && first - line < 4 && text[first] == ' ') {
                first++;
            }
            int to = next;
            while (to > first && text[to - 1] <= ' ' && text[to - 1] >= 0) {
                to--;
            }
            while (region < found.regions() && found.regionEnd(region) <= first) {
                region++;
            }
            boolean isComment = region < found.regions() && found.regionStart(region) <= first;
            int length = 0;
            while (first + length < to && text[first + length] == text[first]) {
                length++;
            }
            byte sign = first < to && first - line < 4 ? text[first] : 0; // deeper is code
            if (frontMatter) {
                frontMatter = line == 0 || !(sign == '-' && length >= 3 && first + length == to);
                beforeStart = -1;
            } else if (fence != 0) {
                fence = sign == fence && length >= fenceLength && first + length == to ? 0 : fence;
                beforeStart = -1;
            } else if (isComment) {
                beforeStart = -1;
            } else if ((sign == '`' || sign == '~') && length >= 3) {
                fence = sign;
                fenceLength = length;
                beforeStart = -1;
            } else if (sign == '#' && length <= LEVELS && (first + length == to || text[first + length] == ' ')) {
                int from = first + length;
                while (from < to && text[from] == ' ') {
                    from++;
                }
                int until = to;
                while (until > from && text[until - 1] == '#') {
                    until--;
                }
                until = until == to || until == from || text[until - 1] == ' ' ? until : to;
                while (until > from && text[until - 1] == ' ') {
                    until--;
                }
                heading(length, line, from, until);
                beforeStart = -1;
            } else if ((sign == '=' || sign == '-') && first + length == to && beforeStart >= 0) {
                heading(sign == '=' ? 1 : 2, beforeStart, beforeStart, beforeEnd);
                beforeStart = -1;
            } else {
                boolean mayBe = first < to
                        && first - line < 4
                        && sign != '>'
                        && sign != '|'
                        && !(sign == '-' || sign == '*' || sign == '+');
                beforeEnd = to;
                beforeStart = mayBe && beforeStart < 0 && !afterText ? first : -1;
                afterText = first < to;
                line = next + 1;
                continue;
            }
            afterText = false;
            line = next + 1;
        }
        close(1, end);
    }

    private boolean afterText; // a paragraph of several lines is no heading

    private void close(int level, int end) {
        for (int i = level; i <= LEVELS; i++) {
            if (open[i] != Marks.NONE) {
                marks.end(open[i], end);
                open[i] = Marks.NONE;
            }
        }
    }

    private void heading(int level, int line, int from, int to) {
        close(level, line);
        if (from >= to) {
            return;
        }
        int parent = Marks.NONE;
        for (int i = level - 1; i > 0 && parent == Marks.NONE; i--) {
            parent = open[i];
        }
        open[level] = marks.add(Kind.HEADING, parent, line, from, to);
    }
}
