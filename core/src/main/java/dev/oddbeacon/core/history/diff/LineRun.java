package dev.oddbeacon.core.history.diff;

import java.util.Arrays;

/**
 * Lines that a commit added to a file, or removed from it.
 *
 * @param added whether they came; else they went
 * @param hunks where they stand, ascending: number of the first line, from 1, and how many follow each other; in the
 * file after, or before if they went
 * @param text the lines, UTF-8, each with a line feed
 */
public record LineRun(boolean added, int[] hunks, byte[] text) {
    public int lines() {
        int lines = 0;
        for (int i = 1; i < hunks.length; i += 2) {
            lines += hunks[i];
        }
        return lines;
    }

    /** Cuts it behind the first line that ends at or after a length. */
    public LineRun[] cut(int length) {
        int end = Math.min(length, text.length) - 1;
        while (end < text.length && text[end] != '\n') {
            end++;
        }
        end = Math.min(text.length, end + 1);
        int lines = 0;
        for (int i = 0; i < end; i++) {
            lines += text[i] == '\n' ? 1 : 0;
        }
        int at = 0;
        while (at < hunks.length && lines >= hunks[at + 1]) {
            lines -= hunks[at + 1];
            at += 2;
        }
        int[] first = Arrays.copyOf(hunks, at + (lines > 0 ? 2 : 0));
        int[] rest = Arrays.copyOfRange(hunks, at, hunks.length);
        if (lines > 0) {
            first[at + 1] = lines;
            rest[0] += lines;
            rest[1] -= lines;
        }
        return new LineRun[] {
            new LineRun(added, first, Arrays.copyOf(text, end)),
            new LineRun(added, rest, Arrays.copyOfRange(text, end, text.length))
        };
    }
}
