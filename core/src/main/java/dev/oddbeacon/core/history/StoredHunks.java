package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.LineDiff;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What commits changed in files, as the index has it: no version of a file is read and compared again. For one thread.
 */
final class StoredHunks {
    private HistoryReader latestFile; // commits that follow each other share blocks
    private int latestNumber;
    private LineBlock latest;

    /** Lines that follow each other, counted from 0. */
    private record Span(int start, int lines) {
        int end() {
            return start + lines;
        }
    }

    /**
     * The hunks between a commit's only parent and the commit, of one file.
     *
     * @param path of the file in the commit, which changed it
     * @return empty if the index lacks its lines, because they are too many or binary
     */
    Optional<List<LineDiff.Hunk>> of(HistoryReader file, int row, String path) {
        HistoryReader.Changes changes = file.changes().of(row);
        for (int number = 0; changes.next(); number++) {
            if (file.paths()[changes.path()].equals(path)) {
                if (changes.binary() || !file.isWhole(row)) {
                    return Optional.empty();
                }
                List<Span> went = new ArrayList<>();
                List<Span> came = new ArrayList<>();
                collect(file, row, number, went, came);
                boolean isAll = lines(went) == changes.removed() && lines(came) == changes.added();
                return isAll ? Optional.of(joined(went, came)) : Optional.empty();
            }
        }
        return Optional.empty();
    }

    private static int lines(List<Span> spans) {
        return spans.stream().mapToInt(Span::lines).sum();
    }

    private void collect(HistoryReader file, int row, int change, List<Span> went, List<Span> came) {
        for (int number = file.firstBlockOfLines(row);
                number < file.lineBlockCount() && file.firstOfLines(number) <= row;
                number++) {
            LineBlock block = block(file, number);
            for (int run = 0; run < block.runs(); run++) {
                if (block.commit(run) == row && block.change(run) == change) {
                    for (int hunk = 0; hunk < block.hunks(run); hunk++) {
                        add(
                                block.isAdded(run) ? came : went,
                                new Span(block.firstLine(run, hunk) - 1, block.lines(run, hunk)));
                    }
                }
            }
        }
    }

    private LineBlock block(HistoryReader file, int number) {
        if (latestFile != file || latestNumber != number) {
            latest = file.lines(number);
            latestFile = file;
            latestNumber = number;
        }
        return latest;
    }

    /** Long runs are cut where a block ends. */
    private static void add(List<Span> spans, Span span) {
        Span last = spans.isEmpty() ? new Span(-1, 0) : spans.getLast();
        if (last.end() == span.start) {
            spans.set(spans.size() - 1, new Span(last.start, last.lines + span.lines));
        } else {
            spans.add(span);
        }
    }

    private static List<LineDiff.Hunk> joined(List<Span> went, List<Span> came) {
        List<LineDiff.Hunk> hunks = new ArrayList<>();
        int shift = 0; // from old line numbers to new ones
        for (int i = 0, k = 0; i < went.size() || k < came.size(); ) {
            int gone = i < went.size() ? went.get(i).start + shift : Integer.MAX_VALUE;
            int come = k < came.size() ? came.get(k).start : Integer.MAX_VALUE;
            int old = Math.min(gone, come) - shift;
            int oldLines = gone <= come ? went.get(i++).lines : 0;
            int newLines = come <= gone ? came.get(k++).lines : 0;
            hunks.add(new LineDiff.Hunk(old, oldLines, old + shift, newLines));
            shift += newLines - oldLines;
        }
        return hunks;
    }
}
