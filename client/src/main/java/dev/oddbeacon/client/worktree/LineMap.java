package dev.oddbeacon.client.worktree;

import dev.oddbeacon.core.history.diff.LineDiff;
import dev.oddbeacon.core.history.diff.TextLines;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.OptionalInt;

/** Where the lines of a text are in a later version of it, and back. Lines count from 1. */
public final class LineMap {
    public static final LineMap SAME = new LineMap(List.of());

    private final List<LineDiff.Hunk> hunks;

    private LineMap(List<LineDiff.Hunk> hunks) {
        this.hunks = hunks;
    }

    /** Between two versions; texts with LF. */
    public static LineMap between(String before, String after) {
        return before.equals(after)
                ? SAME
                : new LineMap(LineDiff.hunks(lines(before), lines(after), TextLines.Sameness.EXACT));
    }

    private static TextLines lines(String text) {
        return new TextLines((text.endsWith("\n") ? text : text + "\n").getBytes(StandardCharsets.UTF_8));
    }

    /** The line in the later version; empty if it went. */
    public OptionalInt after(int line) {
        int moved = 0;
        for (LineDiff.Hunk hunk : hunks) {
            if (line - 1 < hunk.oldStart()) {
                break;
            }
            if (line - 1 < hunk.oldStart() + hunk.oldLines()) {
                return OptionalInt.empty();
            }
            moved += hunk.newLines() - hunk.oldLines();
        }
        return OptionalInt.of(line + moved);
    }

    /** The line in the earlier version; empty if it is new. */
    public OptionalInt before(int line) {
        int moved = 0;
        for (LineDiff.Hunk hunk : hunks) {
            if (line - 1 < hunk.newStart()) {
                break;
            }
            if (line - 1 < hunk.newStart() + hunk.newLines()) {
                return OptionalInt.empty();
            }
            moved += hunk.oldLines() - hunk.newLines();
        }
        return OptionalInt.of(line + moved);
    }
}
