package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Lines that begin with #, of C and its relatives. They are no part of statements. What stands between #if and #else is
 * one of several variants of the same place: brackets that one of them opens are open in the next one only if it opens
 * them too.
 */
final class Directives {
    private static final int MOST_NESTED = 64;

    private record Saved(BraceOutline.Context[] stack, int depth, int count) {}

    private final BraceOutline outline;
    private final Deque<Saved> saved = new ArrayDeque<>();
    private boolean open;
    private int start;
    private int words;
    private int macro = Marks.NONE;
    private boolean defines;

    Directives(BraceOutline outline) {
        this.outline = outline;
    }

    boolean isOpen() {
        return open;
    }

    /** @return false if it is no directive: the start of an attribute */
    boolean open(int at) {
        open = true;
        start = at;
        words = 0;
        defines = false;
        return true;
    }

    boolean word(int from, int to) {
        if (!open) {
            return false;
        }
        words++;
        if (words == 1) {
            String name = new String(
                    outline.text, from, Math.min(12, to - from), java.nio.charset.StandardCharsets.ISO_8859_1);
            switch (name) {
                case "define" -> defines = true;
                case "if", "ifdef", "ifndef" -> save();
                case "else", "elif", "elifdef", "elifndef" -> restore();
                case "endif" -> saved.pollFirst();
                default -> {}
            }
        } else if (words == 2 && defines) {
            macro = outline.marks.add(Kind.MACRO, Marks.NONE, start, from, to);
            defines = false;
        }
        return true;
    }

    void sign(int at, byte sign) {
        if (macro != Marks.NONE && sign == ')' && words >= 2) {
            outline.marks.headEnd(macro, at + 1);
        }
    }

    void line(int at) {
        if (macro != Marks.NONE) {
            outline.marks.end(macro, at);
            macro = Marks.NONE;
        }
        open = false;
    }

    private void save() {
        if (saved.size() < MOST_NESTED) {
            saved.push(copy());
        } else {
            saved.push(new Saved(null, 0, 0));
        }
    }

    private Saved copy() {
        BraceOutline.Context[] stack = new BraceOutline.Context[outline.depth];
        for (int i = 0; i < stack.length; i++) {
            stack[i] = outline.stack[i].copy();
        }
        return new Saved(stack, outline.depth, outline.count);
    }

    /**
     * Goes back to how it was at the #if. Tokens are still there: they are only written over behind what was saved,
     * unless a bracket around was closed.
     */
    private void restore() {
        Saved before = saved.peek();
        if (before == null
                || before.stack == null
                || before.depth == outline.depth
                        && before.count <= outline.count
                        && before.stack[before.depth - 1].start == outline.top.start
                        && before.stack[before.depth - 1].classified == outline.top.classified) {
            if (before != null && before.stack != null && before.count < outline.count) {
                outline.count = Math.max(before.count, outline.top.head);
            }
            return;
        }
        for (int i = 0; i < before.depth; i++) {
            outline.stack[i] = before.stack[i].copy();
        }
        outline.depth = before.depth;
        outline.top = outline.stack[before.depth - 1];
        outline.count = Math.min(before.count, outline.types.length);
        for (int i = outline.top.head; i < outline.count; i++) {
            if (outline.types[i] == 0 || outline.types[i] == BraceOutline.WORD && outline.words[i] == null) {
                outline.count = outline.top.head;
            }
        }
    }
}
