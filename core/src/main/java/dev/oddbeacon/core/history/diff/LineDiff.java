package dev.oddbeacon.core.history.diff;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The difference of two texts, line by line: a shortest list of lines that go and lines that come.
 *
 * <p>The idea is Myers's ("An O(ND) Difference Algorithm and Its Variations", 1986) in its linear-space form: from both
 * ends at once, furthest-reaching paths grow by one edit at a time until they meet; there the problem falls into two.
 * Before that, what the texts begin and end with alike is taken off, each distinct line becomes a number, and lines
 * that only one of the texts has are set aside, as they are changes for certain. Of two texts with D lines changed it
 * costs O(ND) at worst; where D grows beyond {@link #MOST_EDITS} a good split is taken in place of the best, so that
 * texts which have little in common do not take for ever, and the list may be longer than it need be.
 *
 * <p>Where lines may be told in several places (the blank line before or after a new method), the group stands as far
 * down as it can, unless a place before it begins with the least indented line.
 */
public final class LineDiff {
    /** Edits after which a path is taken that looks good. */
    private static final int MOST_EDITS = 1_024;

    /**
     * Lines that are replaced by others. Line numbers count from 0; one of the lengths may be 0, not both.
     */
    public record Hunk(int oldStart, int oldLines, int newStart, int newLines) {}

    private final int[] a;
    private final int[] b;
    private final boolean[] gone; // of the old lines
    private final boolean[] come; // of the new lines
    private int[] forward = {};
    private int[] backward = {};

    private LineDiff(int[] a, int[] b, boolean[] gone, boolean[] come) {
        this.a = a;
        this.b = b;
        this.gone = gone;
        this.come = come;
    }

    /** The hunks between two texts, ascending; no two of them touch. */
    public static List<Hunk> hunks(TextLines before, TextLines after, TextLines.Sameness sameness) {
        int common = Math.min(before.count(), after.count());
        int start = 0;
        while (start < common && sameness.same(before, start, after, start)) {
            start++;
        }
        int end = 0;
        while (end < common - start
                && sameness.same(before, before.count() - 1 - end, after, after.count() - 1 - end)) {
            end++;
        }
        int oldLines = before.count() - start - end;
        int newLines = after.count() - start - end;
        if (oldLines == 0 && newLines == 0) {
            return List.of();
        }
        boolean[] gone = new boolean[oldLines];
        boolean[] come = new boolean[newLines];
        if (oldLines == 0 || newLines == 0) {
            Arrays.fill(gone, true);
            Arrays.fill(come, true);
        } else {
            LineNumbers numbers = new LineNumbers(sameness, oldLines + newLines);
            int[] a = numbers.of(before, start, oldLines);
            int[] b = numbers.of(after, start, newLines);
            markChanges(a, b, numbers.count(), gone, come);
        }
        LineSlides.settle(before, start, gone, come);
        LineSlides.settle(after, start, come, gone);
        return hunks(gone, come, start);
    }

    private static void markChanges(int[] a, int[] b, int distinct, boolean[] gone, boolean[] come) {
        int[] inOld = new int[distinct];
        int[] inNew = new int[distinct];
        for (int line : a) {
            inOld[line]++;
        }
        for (int line : b) {
            inNew[line]++;
        }
        int[] oldKept = kept(a, inNew, gone);
        int[] newKept = kept(b, inOld, come);
        int[] left = Arrays.stream(oldKept).map(index -> a[index]).toArray();
        int[] right = Arrays.stream(newKept).map(index -> b[index]).toArray();
        boolean[] leftGone = new boolean[left.length];
        boolean[] rightCome = new boolean[right.length];
        new LineDiff(left, right, leftGone, rightCome).run();
        for (int i = 0; i < left.length; i++) {
            gone[oldKept[i]] = leftGone[i];
        }
        for (int i = 0; i < right.length; i++) {
            come[newKept[i]] = rightCome[i];
        }
    }

    /** The lines that the other text has as well; the rest are marked as changed. */
    private static int[] kept(int[] lines, int[] inOther, boolean[] changed) {
        int[] kept = new int[lines.length];
        int count = 0;
        for (int i = 0; i < lines.length; i++) {
            if (inOther[lines[i]] > 0) {
                kept[count++] = i;
            } else {
                changed[i] = true;
            }
        }
        return Arrays.copyOf(kept, count);
    }

    /** Parts that are still to be compared; a stack of our own, as splits may be uneven. */
    private void run() {
        int size = a.length + b.length + 3;
        forward = new int[2 * size];
        backward = new int[2 * size];
        List<int[]> open = new ArrayList<>(List.of(new int[] {0, a.length, 0, b.length}));
        while (!open.isEmpty()) {
            int[] part = open.removeLast();
            int aLow = part[0];
            int aHigh = part[1];
            int bLow = part[2];
            int bHigh = part[3];
            while (aLow < aHigh && bLow < bHigh && a[aLow] == b[bLow]) {
                aLow++;
                bLow++;
            }
            while (aLow < aHigh && bLow < bHigh && a[aHigh - 1] == b[bHigh - 1]) {
                aHigh--;
                bHigh--;
            }
            if (aLow == aHigh) {
                Arrays.fill(come, bLow, bHigh, true);
            } else if (bLow == bHigh) {
                Arrays.fill(gone, aLow, aHigh, true);
            } else {
                int[] middle = middle(aLow, aHigh, bLow, bHigh);
                open.add(new int[] {middle[0], aHigh, middle[1], bHigh});
                open.add(new int[] {aLow, middle[0], bLow, middle[1]});
            }
        }
    }

    /** A point that a shortest path goes through, neither of the two ends. Both parts are not empty. */
    private int[] middle(int aLow, int aHigh, int bLow, int bHigh) {
        int offset = b.length + 1; // diagonals a - b are stored from here
        int lowest = aLow - bHigh;
        int highest = aHigh - bLow;
        int start = aLow - bLow;
        int end = aHigh - bHigh;
        boolean odd = ((start - end) & 1) != 0;
        int fromStart = start;
        int toStart = start;
        int fromEnd = end;
        int toEnd = end;
        forward[offset + start] = aLow;
        backward[offset + end] = aHigh;
        for (int edits = 1; ; edits++) {
            if (fromStart > lowest) {
                forward[offset + --fromStart - 1] = -1;
            } else {
                fromStart++;
            }
            if (toStart < highest) {
                forward[offset + ++toStart + 1] = -1;
            } else {
                toStart--;
            }
            for (int diagonal = toStart; diagonal >= fromStart; diagonal -= 2) {
                int below = forward[offset + diagonal - 1];
                int above = forward[offset + diagonal + 1];
                int x = below >= above ? below + 1 : above;
                int y = x - diagonal;
                while (x < aHigh && y < bHigh && a[x] == b[y]) {
                    x++;
                    y++;
                }
                forward[offset + diagonal] = x;
                if (odd && fromEnd <= diagonal && diagonal <= toEnd && backward[offset + diagonal] <= x) {
                    return new int[] {x, y};
                }
            }
            if (fromEnd > lowest) {
                backward[offset + --fromEnd - 1] = Integer.MAX_VALUE;
            } else {
                fromEnd++;
            }
            if (toEnd < highest) {
                backward[offset + ++toEnd + 1] = Integer.MAX_VALUE;
            } else {
                toEnd--;
            }
            for (int diagonal = toEnd; diagonal >= fromEnd; diagonal -= 2) {
                int below = backward[offset + diagonal - 1];
                int above = backward[offset + diagonal + 1];
                int x = below < above ? below : above - 1;
                int y = x - diagonal;
                while (x > aLow && y > bLow && a[x - 1] == b[y - 1]) {
                    x--;
                    y--;
                }
                backward[offset + diagonal] = x;
                if (!odd && fromStart <= diagonal && diagonal <= toStart && x <= forward[offset + diagonal]) {
                    return new int[] {x, y};
                }
            }
            if (edits >= MOST_EDITS) {
                return furthest(aLow, aHigh, bLow, bHigh, new int[] {fromStart, toStart}, new int[] {fromEnd, toEnd});
            }
        }
    }

    /** The end of the path that has come furthest. */
    private int[] furthest(int aLow, int aHigh, int bLow, int bHigh, int[] ofForward, int[] ofBackward) {
        int offset = b.length + 1;
        long best = -1;
        int[] point = {};
        for (int diagonal = ofForward[1]; diagonal >= ofForward[0]; diagonal -= 2) {
            int x = Math.min(forward[offset + diagonal], aHigh);
            int y = x - diagonal;
            if (y > bHigh) {
                x = bHigh + diagonal;
                y = bHigh;
            }
            if ((long) x + y - aLow - bLow > best && x >= aLow && y >= bLow) {
                best = (long) x + y - aLow - bLow;
                point = new int[] {x, y};
            }
        }
        for (int diagonal = ofBackward[1]; diagonal >= ofBackward[0]; diagonal -= 2) {
            int x = Math.max(backward[offset + diagonal], aLow);
            int y = x - diagonal;
            if (y < bLow) {
                x = bLow + diagonal;
                y = bLow;
            }
            if ((long) aHigh + bHigh - x - y > best && x <= aHigh && y <= bHigh) {
                best = (long) aHigh + bHigh - x - y;
                point = new int[] {x, y};
            }
        }
        return point;
    }

    private static List<Hunk> hunks(boolean[] gone, boolean[] come, int start) {
        List<Hunk> hunks = new ArrayList<>();
        int i = 0;
        int k = 0;
        while (i < gone.length || k < come.length) {
            int oldStart = i;
            int newStart = k;
            while (i < gone.length && gone[i]) {
                i++;
            }
            while (k < come.length && come[k]) {
                k++;
            }
            if (i > oldStart || k > newStart) {
                hunks.add(new Hunk(start + oldStart, i - oldStart, start + newStart, k - newStart));
            }
            i++;
            k++;
        }
        return List.copyOf(hunks);
    }
}
