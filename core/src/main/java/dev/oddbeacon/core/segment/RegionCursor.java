package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Region;

/** Tells the regions of a blob at one offset after another; cheap if they ascend. For one thread. */
public final class RegionCursor {
    private final SegmentReader segment;
    private final PieceStructure.Regions regions = new PieceStructure.Regions();
    private int blob;
    private int piece = -1;
    private int index;
    private long end;

    public RegionCursor(SegmentReader segment) {
        this.segment = segment;
    }

    /** Goes to a blob. */
    public void begin(int blobNumber) {
        blob = blobNumber;
        piece = -1;
    }

    /** The region that an offset of the blob lies in. */
    public Region region(long offset) {
        if (piece < 0 || offset < segment.pieceStart(piece) || offset >= segment.pieceEnd(piece)) {
            piece = segment.pieceAt(blob, offset);
            segment.regions(piece, regions);
            index = 0;
        }
        if (index > 0 && offset < regions.bounds[2 * index - 2]) {
            index = 0;
        }
        while (index < regions.count && regions.bounds[2 * index + 1] <= offset) {
            index++;
        }
        boolean inside = index < regions.count && regions.bounds[2 * index] <= offset;
        end = inside
                ? regions.bounds[2 * index + 1]
                : index < regions.count ? regions.bounds[2 * index] : segment.pieceEnd(piece);
        return inside ? regions.kinds[index] : Region.CODE;
    }

    /** End of the region that was looked up last, or of the piece. */
    public long end() {
        return end;
    }
}
