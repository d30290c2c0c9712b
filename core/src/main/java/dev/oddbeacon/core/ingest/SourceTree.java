package dev.oddbeacon.core.ingest;

import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.source.Trait;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.ToLongFunction;

/** A tree of files to index: the port through which the core reads repositories. */
public interface SourceTree {
    /** The entry at a path. */
    enum Kind {
        FILE,
        LINK,
        SUBMODULE
    }

    /** @param bytes size of a file; 0 for others */
    record Entry(String path, ObjectId id, Kind kind, long bytes) {}

    /**
     * All files, ordered by path, no two with the same one.
     *
     * @param knownBytes the sizes of blobs that need not be looked up, negative for others; looking one up takes longer
     * than listing it
     */
    List<Entry> entries(ToLongFunction<ObjectId> knownBytes) throws IOException;

    /**
     * What a repository says itself about one of its files.
     *
     * @param type of the file; empty if nothing is said
     * @param traits all that it has; empty if nothing is said
     */
    record Marking(Optional<String> type, Optional<Set<Trait>> traits) {
        public static final Marking NONE = new Marking(Optional.empty(), Optional.empty());
    }

    /** The attributes that a repository gives to the file at a path. */
    interface Markings {
        Marking of(String path);
    }

    /** @param entries as {@link #entries} told them */
    default Markings markings(List<Entry> entries) throws IOException {
        return _ -> Marking.NONE;
    }

    Blobs blobs();
}
