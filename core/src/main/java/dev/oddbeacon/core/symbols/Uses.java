package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.search.BlobParts;
import dev.oddbeacon.core.segment.SegmentReader;
import java.util.Arrays;

/** Uses of a name in a piece: occurrences in code that do not declare it. */
final class Uses {
    private Uses() {}

    /**
     * Offsets in the content of the segment, ascending.
     *
     * @param parts of the blob that the piece is of
     */
    static long[] of(SegmentReader segment, int piece, String name, BlobParts parts) {
        int blob = segment.blobOf(piece);
        Query use = new Query.Marked(Query.Mark.EXACTLY, new TextClause.Symbol(SymbolRole.USE, name));
        TextMatcher.Finder finder =
                CompiledQuery.of(use, CaseMode.AUTO).clauses().getFirst().finder(() -> false);
        finder.enter(parts);
        finder.begin(
                segment.content(),
                segment.start(blob),
                segment.end(blob),
                segment.pieceStart(piece),
                segment.pieceEnd(piece));
        long[] found = new long[16];
        int count = 0;
        while (finder.next()) {
            if (count == found.length) {
                found = Arrays.copyOf(found, count * 2);
            }
            found[count++] = finder.start();
        }
        return Arrays.copyOf(found, count);
    }
}
