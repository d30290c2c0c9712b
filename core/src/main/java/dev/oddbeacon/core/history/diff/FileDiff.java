package dev.oddbeacon.core.history.diff;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * How a file differs between two commits: hunks with the lines around them.
 *
 * @param binary whether one of the two is binary or too large; then there are no hunks
 */
public record FileDiff(PathChange change, boolean binary, List<Hunk> hunks) {
    /** Larger files are not compared. In bytes. */
    private static final int LARGEST = 32 << 20;

    /**
     * Line numbers count from 1; where there are no lines, the start is that of the line before, as in a unified diff.
     */
    public record Hunk(int oldStart, int oldLines, int newStart, int newLines, List<Line> lines) {}

    /**
     * @param kind a space, + or -
     * @param raw its bytes with the line end, which a last line may lack
     */
    public record Line(char kind, byte[] raw) {
        /** Without the line end. */
        public String text() {
            TextLines line = new TextLines(raw);
            return line.count() == 0 ? "" : line.text(0);
        }
    }

    /** @param context lines around each change */
    public static FileDiff of(
            PathChange change, byte[] before, byte[] after, TextLines.Sameness sameness, int context) {
        if (before.length > LARGEST
                || after.length > LARGEST
                || TextLines.isBinary(before)
                || TextLines.isBinary(after)) {
            return new FileDiff(change, true, List.of());
        }
        TextLines old = new TextLines(before);
        TextLines now = new TextLines(after);
        List<LineDiff.Hunk> changes = LineDiff.hunks(old, now, sameness);
        List<Hunk> hunks = new ArrayList<>();
        for (int i = 0; i < changes.size(); ) {
            int last = i;
            while (last + 1 < changes.size()
                    && changes.get(last + 1).oldStart()
                                    - changes.get(last).oldStart()
                                    - changes.get(last).oldLines()
                            <= 2 * context) {
                last++;
            }
            hunks.add(hunk(old, now, changes.subList(i, last + 1), context));
            i = last + 1;
        }
        return new FileDiff(change, false, hunks);
    }

    private static Hunk hunk(TextLines old, TextLines now, List<LineDiff.Hunk> changes, int context) {
        LineDiff.Hunk first = changes.getFirst();
        LineDiff.Hunk last = changes.getLast();
        int lead = Math.min(context, Math.min(first.oldStart(), first.newStart()));
        int tail = Math.min(
                context,
                Math.min(
                        old.count() - last.oldStart() - last.oldLines(),
                        now.count() - last.newStart() - last.newLines()));
        List<Line> lines = new ArrayList<>();
        int at = first.newStart() - lead;
        for (LineDiff.Hunk change : changes) {
            add(lines, ' ', now, at, change.newStart());
            add(lines, '-', old, change.oldStart(), change.oldStart() + change.oldLines());
            at = change.newStart() + change.newLines();
            add(lines, '+', now, change.newStart(), at);
        }
        add(lines, ' ', now, at, at + tail);
        int oldLines = last.oldStart() + last.oldLines() + tail - first.oldStart() + lead;
        int newLines = at + tail - first.newStart() + lead;
        return new Hunk(
                first.oldStart() - lead + (oldLines > 0 ? 1 : 0),
                oldLines,
                first.newStart() - lead + (newLines > 0 ? 1 : 0),
                newLines,
                lines);
    }

    private static void add(List<Line> lines, char kind, TextLines text, int from, int until) {
        for (int line = from; line < until; line++) {
            lines.add(new Line(kind, Arrays.copyOfRange(text.bytes(), text.start(line), text.start(line + 1))));
        }
    }
}
