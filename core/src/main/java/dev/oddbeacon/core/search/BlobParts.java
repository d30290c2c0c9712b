package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.matching.FileParts;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.RegionCursor;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Language;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/** The parts of a blob, read from the index piece by piece. For one thread. */
public final class BlobParts implements FileParts {
    private SegmentReader segment;
    private int blob;
    private Optional<Language> language = Optional.empty();
    private boolean isLanguageKnown;
    private RegionCursor regions;
    private int piece = -1;
    private List<Declared> declarations = List.of();

    /** Goes to a blob. */
    public void begin(SegmentReader inSegment, int blobNumber) {
        if (segment != inSegment) {
            regions = new RegionCursor(inSegment);
        }
        segment = inSegment;
        blob = blobNumber;
        isLanguageKnown = false;
        regions.begin(blob);
        piece = -1;
    }

    private Optional<Language> language() {
        if (!isLanguageKnown) {
            language = segment.language(blob);
            isLanguageKnown = true;
        }
        return language;
    }

    @Override
    public Region region(long offset) {
        return regions.region(offset);
    }

    @Override
    public long regionEnd() {
        return regions.end();
    }

    @Override
    public boolean isDeclared(long start, long end, SymbolName name) {
        if (language().isEmpty()) {
            return false;
        }
        int at = segment.pieceAt(blob, start);
        if (at != piece) {
            piece = at;
            declarations = segment.declarations(piece);
        }
        int low = 0;
        int high = declarations.size() - 1;
        while (low <= high) {
            int middle = (low + high) >>> 1;
            Declared found = declarations.get(middle);
            if (found.nameStart() == start) {
                return found.nameEnd() == end
                        && !found.kind().isUse()
                        && (!name.asksMore() || name.takes(found.kind(), segment.container(blob, found)));
            } else if (found.nameStart() < start) {
                low = middle + 1;
            } else {
                high = middle - 1;
            }
        }
        return false;
    }

    @Override
    public boolean isName(long start, long end) {
        if (language().isEmpty() || end <= start) {
            return false;
        }
        boolean leftOpen = start > segment.start(blob)
                && language().get().isLetter(segment.content().get(ValueLayout.JAVA_BYTE, start - 1));
        boolean rightOpen = end < segment.end(blob)
                && language().get().isLetter(segment.content().get(ValueLayout.JAVA_BYTE, end));
        return !leftOpen
                && !rightOpen
                && language()
                        .get()
                        .isName(new String(
                                segment.content().asSlice(start, end - start).toArray(ValueLayout.JAVA_BYTE),
                                StandardCharsets.UTF_8));
    }
}
