package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Found;
import java.util.Arrays;

/** YAML: keys, by their indentation. Those in braces on one line are not told. */
final class IndentedKeysOutline implements Outline {
    private static final int DEEPEST = 200;

    private final byte[] text;
    private final Marks marks;
    private final Found found;
    private int region;
    private int[] indents = new int[16];
    private int[] keys = new int[16];
    private int depth;
    private int flow; // brackets left open by lines before

    IndentedKeysOutline(byte[] text, Marks marks, Found found) {
        this.text = text;
        this.marks = marks;
        this.found = found;
    }

    @Override
    public void finish(int end) {
        int line = 0;
        int lastEnd = 0;
        while (line < end) {
            int next = line;
            while (next < end && text[next] != '\n') {
                next++;
            }
            int i = line;
            while (i < next && text[i] == ' ') {
                i++;
            }
            if (i < next && isCode(i) && text[i] != '#' && text[i] != '\r') {
                boolean inFlow = flow > 0;
                if (!inFlow) {
                    while (i + 1 < next && (text[i] == '-' || text[i] == '?') && text[i + 1] == ' ') {
                        i++;
                        while (i < next && text[i] == ' ') {
                            i++;
                        }
                    }
                    key(line, i, next, lastEnd);
                }
                count(line, next);
                lastEnd = next;
            } else if (i < next) {
                lastEnd = next;
            }
            line = next + 1;
        }
        while (depth > 0) {
            marks.end(keys[--depth], lastEnd);
        }
    }

    private boolean isCode(int at) {
        while (region < found.regions() && found.regionEnd(region) <= at) {
            region++;
        }
        return region == found.regions() || found.regionStart(region) >= at;
    }

    /** Counts brackets of values, outside strings. */
    private void count(int from, int to) {
        int k = region;
        for (int i = from; i < to; i++) {
            while (k < found.regions() && found.regionEnd(k) <= i) {
                k++;
            }
            if (k < found.regions() && found.regionStart(k) <= i) {
                i = Math.min(to, found.regionEnd(k)) - 1;
                continue;
            }
            boolean begins = flow > 0
                    || i > from && (text[i - 1] == ' ' || text[i - 1] == '[' || text[i - 1] == '{')
                    || i == from;
            if ((text[i] == '{' || text[i] == '[') && begins) {
                flow++;
            } else if ((text[i] == '}' || text[i] == ']') && flow > 0) {
                flow--;
            }
        }
    }

    private void key(int line, int from, int next, int lastEnd) {
        int to = from;
        boolean quoted = from < next && (text[from] == '"' || text[from] == '\'');
        if (quoted) {
            to++;
            while (to < next && text[to] != text[from]) {
                to++;
            }
            to = Math.min(next, to + 1);
            if (to >= next || text[to] != ':') {
                to = -1;
            }
        } else {
            while (to < next
                    && !(text[to] == ':' && (to + 1 >= next || text[to + 1] == ' ' || text[to + 1] == '\r'))
                    && !(text[to] == ' ' && to + 1 < next && text[to + 1] == '#')) {
                to++;
            }
            if (to >= next || text[to] != ':' || from < next && "{[&*!|>%@`".indexOf(text[from]) >= 0) {
                to = -1;
            }
        }
        int indent = from - line;
        while (depth > 0 && indents[depth - 1] >= indent) {
            marks.end(keys[--depth], lastEnd);
        }
        if (to <= from || depth >= DEEPEST) {
            return;
        }
        if (depth == indents.length) {
            indents = Arrays.copyOf(indents, depth * 2);
            keys = Arrays.copyOf(keys, depth * 2);
        }
        int mark = marks.add(
                Kind.KEY,
                depth == 0 ? Marks.NONE : keys[depth - 1],
                from,
                quoted ? from + 1 : from,
                quoted ? to - 1 : to);
        marks.headEnd(mark, next);
        indents[depth] = indent;
        keys[depth++] = mark;
    }
}
