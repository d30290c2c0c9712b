package dev.oddbeacon.core.ingest;

import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.util.List;
import java.util.function.ToLongFunction;

/** A tree of files to index: the port through which the core reads repositories. */
public interface SourceTree {
    /** What stands at a path. */
    enum Kind {
        FILE, LINK, SUBMODULE
    }

    /** @param bytes size of a file; 0 for others */
    record Entry(String path, ObjectId id, Kind kind, long bytes) {}

    /**
     * All files, ordered by path, no two with the same one.
     *
     * @param knownBytes the sizes of blobs that need not be looked up, negative for others; looking one up takes longer than listing it
     */
    List<Entry> entries(ToLongFunction<ObjectId> knownBytes) throws IOException;

    /** Reads blobs; for one thread. */
    interface Blobs extends AutoCloseable {
        /** @throws IOException if the blob is missing or damaged */
        byte[] read(ObjectId id) throws IOException;

        @Override
        void close();
    }

    Blobs blobs();
}
