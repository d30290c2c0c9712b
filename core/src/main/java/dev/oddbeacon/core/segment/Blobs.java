package dev.oddbeacon.core.segment;

import java.io.IOException;

/** Reads the contents of files by their ids; for one thread. */
public interface Blobs extends AutoCloseable {
    /** @throws IOException if the blob is missing or damaged */
    byte[] read(ObjectId id) throws IOException;

    @Override
    void close();
}
