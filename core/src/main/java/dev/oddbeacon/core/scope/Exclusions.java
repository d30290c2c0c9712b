package dev.oddbeacon.core.scope;

import dev.oddbeacon.core.snapshot.SnapshotReader;
import java.util.BitSet;

/** Which files of a branch the exclusion set of a name takes out. */
@FunctionalInterface
public interface Exclusions {
    Exclusions NONE = (_, _) -> new BitSet();

    /** @return by number of the file; never changed */
    BitSet excluded(String set, SnapshotReader snapshot);
}
