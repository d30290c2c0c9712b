package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.search.Excerpt.Span;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/** A match in a text. */
final class Spans {
    private Spans() {}

    /** Matches in a text, in UTF-16 units; what overlaps becomes one. */
    static List<Span> of(String text, List<TextMatcher> matchers) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        List<int[]> found = new ArrayList<>();
        for (TextMatcher matcher : matchers) {
            TextMatcher.Finder finder = matcher.finder(() -> false);
            finder.begin(MemorySegment.ofArray(utf8), 0, utf8.length, 0, utf8.length);
            while (finder.next()) {
                if (finder.end() > finder.start()) {
                    found.add(new int[] {(int) finder.start(), (int) finder.end()});
                }
            }
        }
        found.sort(Comparator.comparingInt(span -> span[0]));
        List<Span> spans = new ArrayList<>();
        int at = 0;
        int unit = 0;
        for (int i = 0; i < found.size(); i++) {
            int start = Math.max(at, found.get(i)[0]);
            int end = found.get(i)[1];
            while (i + 1 < found.size() && found.get(i + 1)[0] < end) {
                end = Math.max(end, found.get(++i)[1]);
            }
            if (end > start) {
                unit += new String(Arrays.copyOfRange(utf8, at, start), StandardCharsets.UTF_8).length();
                int length = new String(Arrays.copyOfRange(utf8, start, end), StandardCharsets.UTF_8).length();
                spans.add(new Span(unit, unit + length));
                unit += length;
                at = end;
            }
        }
        return spans;
    }
}
