package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.SegmentReader;

/** A declaration at one of the places where its file stands. */
public record Spot(SegmentReader segment, int blob, Declared declared, int branchNumber, int file) {
    public String name() {
        return segment.name(declared);
    }

    /** What it stands in, qualified. */
    public String container() {
        return segment.container(blob, declared);
    }

    /** Whether both are the same declaration of the same file. */
    public boolean isSameAs(Spot other) {
        return branchNumber == other.branchNumber && file == other.file && declared.number() == other.declared.number();
    }
}
