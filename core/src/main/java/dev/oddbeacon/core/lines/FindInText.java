package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;

/** Finds every match of a text in one text, as a search finds them in the index: the same dialect, the same matcher. */
public final class FindInText {
    private FindInText() {}

    /** A match, in UTF-16 units from the beginning of the text. */
    public record Match(int start, int end) {}

    /**
     * @param query read as plain text or as a regular expression
     * @param utf8 the text
     * @param most matches to tell; empty ones are not told
     * @param stop asked now and then
     * @throws InvalidQueryException if the query is wrong, or an expression
     * @throws dev.oddbeacon.core.text.ScanStoppedException once it is told to stop
     */
    public static List<Match> of(TextQuery query, byte[] utf8, int most, BooleanSupplier stop) {
        if (query.reading() == Reading.EXPRESSION) {
            throw new InvalidQueryException(
                    "Within a file, a text or a regular expression is found, not an expression. Leave reading out, or take regex.");
        }
        TextMatcher matcher = CompiledQuery.of(query.understand(false).query(), CaseMode.AUTO)
                .clauses()
                .getFirst();
        TextMatcher.Finder finder = matcher.finder(stop);
        finder.begin(MemorySegment.ofArray(utf8), 0, utf8.length, 0, utf8.length);
        List<Match> found = new ArrayList<>();
        int at = 0; // up to where units are counted
        int units = 0;
        while (found.size() < most && finder.next()) {
            int start = (int) finder.start();
            int end = (int) finder.end();
            if (start == end) {
                continue;
            }
            units += Utf8.units(utf8, at, start);
            int length = Utf8.units(utf8, start, end);
            found.add(new Match(units, units + length));
            units += length;
            at = end;
        }
        return found;
    }
}
