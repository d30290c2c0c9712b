package dev.oddbeacon.core.history;

import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.util.Optional;

/** The object at a path of a commit: the port to the trees and blobs of a repository. For one thread. */
public interface PastObjects {
    /** The blob, or the tree of a folder; nothing if the commit has no such path, or is missing. */
    Optional<ObjectId> at(ObjectId commit, String path) throws IOException;

    /** @throws IOException if the blob is missing, damaged or too large */
    byte[] blob(ObjectId id) throws IOException;
}
