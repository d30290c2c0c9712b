package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.commits.CommitAnswer.ChangedLine;
import dev.oddbeacon.core.commits.CommitAnswer.File;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.LineBlock;
import dev.oddbeacon.core.lines.Excerpts;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.search.Budget;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** The lines that a commit changed in which something matches. */
final class ChangedLines {
    private ChangedLines() {}

    /**
     * @param added texts that are looked for in lines that came
     * @param removed texts that are looked for in lines that went
     */
    static List<ChangedLine> of(
            HistoryReader file,
            int row,
            List<File> files,
            List<TextMatcher> added,
            List<TextMatcher> removed,
            int most,
            Budget budget) {
        List<ChangedLine> lines = new ArrayList<>();
        for (int number = file.firstBlockOfLines(row);
                number < file.lineBlockCount()
                        && file.firstOfLines(number) <= row
                        && lines.size() < most
                        && !budget.isOver();
                number++) {
            LineBlock block = file.lines(number);
            for (int run = 0; run < block.runs() && lines.size() < most; run++) {
                List<TextMatcher> matchers = block.isAdded(run) ? added : removed;
                if (block.commit(run) == row && !matchers.isEmpty()) {
                    in(block, run, files.get(block.change(run)).path(), matchers, most, lines);
                }
            }
        }
        lines.sort(Comparator.comparing(ChangedLine::path)
                .thenComparingInt(line -> line.line().number()));
        return lines;
    }

    private static void in(
            LineBlock block, int run, String path, List<TextMatcher> matchers, int most, List<ChangedLine> lines) {
        MemorySegment text = MemorySegment.ofArray(block.text());
        List<TextMatcher.Finder> finders =
                matchers.stream().map(matcher -> matcher.finder(() -> false)).toList();
        for (TextMatcher.Finder finder : finders) {
            finder.begin(text, block.start(run), block.end(run), block.start(run), block.end(run));
        }
        boolean[] matches =
                new boolean[block.end(run) - block.start(run) + 1]; // by offset: a line that starts there has a match
        for (TextMatcher.Finder finder : finders) {
            int marked = 0;
            while (marked < most && finder.next()) {
                for (int start = lineStart(block, run, (int) finder.start());
                        start < Math.max(finder.end(), finder.start() + 1) && start < block.end(run);
                        start = lineEnd(block, start) + 1) {
                    matches[start - block.start(run)] = true;
                }
                finder.skipLine();
                marked++;
            }
        }
        int line = 0;
        for (int start = block.start(run); start < block.end(run) && lines.size() < most; line++) {
            int end = lineEnd(block, start);
            if (matches[start - block.start(run)]) {
                String shown = new String(block.text(), start, end - start, StandardCharsets.UTF_8);
                lines.add(new ChangedLine(
                        path,
                        block.isAdded(run),
                        Excerpts.cut(block.lineNumber(run, line), shown, Spans.of(shown, matchers), false, List.of())));
            }
            start = end + 1;
        }
    }

    static int lineStart(LineBlock block, int run, int offset) {
        int start = offset;
        while (start > block.start(run) && block.text()[start - 1] != '\n') {
            start--;
        }
        return start;
    }

    static int lineEnd(LineBlock block, int start) {
        int end = start;
        while (block.text()[end] != '\n') {
            end++;
        }
        return end;
    }
}
