package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import java.util.Arrays;

/** JSON: the keys of objects, inside one another. */
final class KeysOutline implements Outline {
    private static final int DEEPEST = 400;

    private final byte[] text;
    private final Marks marks;
    private int[] owners = new int[16]; // of each open bracket: the key it is the value of
    private byte[] opens = new byte[16];
    private int depth;
    private int ignored;
    private int start = -1; // of the last string, if it may be a key
    private int end;
    private int key = Marks.NONE; // whose value is read
    private int lastEnd;

    KeysOutline(byte[] text, Marks marks) {
        this.text = text;
        this.marks = marks;
    }

    @Override
    public void literal(int from, int to) {
        start = from;
        end = to;
        lastEnd = to;
    }

    @Override
    public void word(int from, int to, dev.oddbeacon.core.source.language.Word word) {
        literal(from, to);
    }

    @Override
    public void sign(int at, byte sign) {
        if (ignored > 0) {
            ignored += sign == '{' || sign == '[' ? 1 : sign == '}' || sign == ']' ? -1 : 0;
            return;
        }
        switch (sign) {
            case '{', '[' -> {
                if (depth == DEEPEST) {
                    ignored = 1;
                    return;
                }
                if (depth == owners.length) {
                    owners = Arrays.copyOf(owners, depth * 2);
                    opens = Arrays.copyOf(opens, depth * 2);
                }
                owners[depth] = key != Marks.NONE ? key : depth == 0 ? Marks.NONE : owners[depth - 1];
                opens[depth++] = sign;
                key = Marks.NONE;
            }
            case '}', ']' -> {
                ended();
                if (depth > 0) {
                    depth--;
                    if (owners[depth] != Marks.NONE && (depth == 0 || owners[depth - 1] != owners[depth])) {
                        marks.end(owners[depth], at + 1);
                    }
                }
                key = Marks.NONE;
            }
            case ',' -> ended();
            case ':' -> {
                if (start >= 0 && depth > 0 && opens[depth - 1] == '{' && key == Marks.NONE) {
                    boolean quoted = text[start] == '"' || text[start] == '\'';
                    int from = quoted ? start + 1 : start;
                    int to = quoted && end > from ? end - 1 : end;
                    if (to > from) {
                        key = marks.add(Kind.KEY, owners[depth - 1], start, from, to);
                    }
                }
            }
            default -> {}
        }
        start = -1;
        lastEnd = at + 1;
    }

    private void ended() {
        if (key != Marks.NONE) {
            marks.end(key, lastEnd);
        }
        key = Marks.NONE;
    }

    @Override
    public void finish(int at) {
        ended();
    }
}
