package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.source.Region;

/** Tells what is code in a text; cheap from left to right. Offsets are bytes of that text. */
public interface RegionSource {
    /** The region that an offset lies in. */
    Region region(int offset);

    /** End of the region that was looked up last, or an offset before it: what follows may be of the same region. */
    int end();
}
