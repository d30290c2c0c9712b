package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.LineRun;
import java.util.Arrays;

/** Runs of changed lines, unpacked. For one thread. */
public final class LineBlock {
    private final byte[] bytes;
    private final int[]
            runs; // of each: commit, change, whether added, where its hunks are, how many, start and end of its text
    private int count;
    private int[] hunks = new int[64];
    private int hunkCount;
    private int at;

    private static final int FIELDS = 7;

    LineBlock(byte[] bytes, int firstCommit) {
        this.bytes = bytes;
        count = number();
        runs = new int[count * FIELDS];
        int commit = firstCommit;
        int text = 0;
        for (int run = 0; run < count; run++) {
            int row = run * FIELDS;
            commit += number();
            runs[row] = commit;
            runs[row + 1] = number();
            int head = number();
            runs[row + 2] = head & 1;
            runs[row + 3] = hunkCount;
            runs[row + 4] = head >>> 1;
            int line = 0;
            for (int i = 0; i < head >>> 1; i++) {
                if (hunkCount + 2 > hunks.length) {
                    hunks = Arrays.copyOf(hunks, hunks.length * 2);
                }
                hunks[hunkCount++] = line += number();
                hunks[hunkCount++] = number();
                line += hunks[hunkCount - 1];
            }
            int length = number();
            runs[row + 5] = text;
            runs[row + 6] = text + length;
            text += length;
        }
        for (int run = 0; run < count; run++) {
            runs[run * FIELDS + 5] += at;
            runs[run * FIELDS + 6] += at;
        }
    }

    private int number() {
        int part = bytes[at++];
        int value = part & 0x7F;
        for (int shift = 7; part < 0; shift += 7) {
            part = bytes[at++];
            value |= (part & 0x7F) << shift;
        }
        return value;
    }

    public int runs() {
        return count;
    }

    public int commit(int run) {
        return runs[run * FIELDS];
    }

    /** Number of the change within its commit, from 0. */
    public int change(int run) {
        return runs[run * FIELDS + 1];
    }

    public boolean isAdded(int run) {
        return runs[run * FIELDS + 2] == 1;
    }

    /** UTF-8; runs have parts of it, whose lines each end with a line feed. */
    public byte[] text() {
        return bytes;
    }

    public int start(int run) {
        return runs[run * FIELDS + 5];
    }

    public int end(int run) {
        return runs[run * FIELDS + 6];
    }

    public int hunks(int run) {
        return runs[run * FIELDS + 4];
    }

    /** The number in its file of the first line of a hunk, from 1. */
    public int firstLine(int run, int hunk) {
        return hunks[runs[run * FIELDS + 3] + 2 * hunk];
    }

    public int lines(int run, int hunk) {
        return hunks[runs[run * FIELDS + 3] + 2 * hunk + 1];
    }

    /** The number in its file of a line of a run, which counts from 0. */
    public int lineNumber(int run, int line) {
        int rest = line;
        for (int hunk = 0; hunk < hunks(run); hunk++) {
            if (rest < lines(run, hunk)) {
                return firstLine(run, hunk) + rest;
            }
            rest -= lines(run, hunk);
        }
        throw new IndexOutOfBoundsException(line);
    }

    LineRun run(int run) {
        int from = runs[run * FIELDS + 3];
        return new LineRun(
                isAdded(run),
                Arrays.copyOfRange(hunks, from, from + 2 * hunks(run)),
                Arrays.copyOfRange(bytes, start(run), end(run)));
    }
}
