package dev.oddbeacon.core.search;

import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.meaning.UseJudge;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.matching.FileParts;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.RegionCursor;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Language;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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
    private final View view;
    private final Map<SymbolName, UseJudge> judges = new HashMap<>();
    private int branchNumber;
    private int file;

    public BlobParts(View view) {
        this.view = view;
    }

    /** Goes to a blob, as the text of one of its files. */
    public void begin(SegmentReader inSegment, int blobNumber, int inBranch, int ofFile) {
        branchNumber = inBranch;
        file = ofFile;
        if (segment != inSegment) {
            regions = new RegionCursor(inSegment);
        }
        segment = inSegment;
        blob = blobNumber;
        isLanguageKnown = false;
        regions.begin(blob);
        piece = -1;
    }

    @Override
    public Optional<Language> language() {
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
        return !leftOpen && !rightOpen && language().get().isName(text(start, end));
    }

    @Override
    public boolean isUse(long start, long end, SymbolName name) {
        return judges.computeIfAbsent(name, one -> UseJudge.of(view, one))
                        .of(text(start, end), branchNumber, file, start)
                != Certainty.BY_NAME;
    }

    private String text(long start, long end) {
        return new String(
                segment.content().asSlice(start, end - start).toArray(ValueLayout.JAVA_BYTE), StandardCharsets.UTF_8);
    }
}
