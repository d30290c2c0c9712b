package dev.oddbeacon.core.scope;

import dev.oddbeacon.core.snapshot.SnapshotReader;
import java.util.BitSet;

/** The files of a branch that an exclusion set takes out. */
@FunctionalInterface
public interface Exclusions {
    Exclusions NONE = (_, _) -> new BitSet();

    /** @return by number of the file; never changed */
    BitSet excluded(String set, SnapshotReader snapshot);
}
