package dev.oddbeacon.server.objects;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;

/**
 * Where files of the index lie that several machines share: each is written once, under a name that no other has, and
 * never changed. Anything but {@link NoSuchFileException} means that the store does not do its work now.
 */
public interface ObjectStore {
    /** @param bytes its length */
    record Stored(String name, long bytes) {}

    /** Where it is, in words for people. */
    String place();

    /** Puts a file into the store, under its own name; one that is there already stays. It is safe when this returns. */
    void put(Path file) throws IOException;

    /**
     * Writes an object into a file.
     *
     * @param file is made, or written over
     * @throws NoSuchFileException if there is no such object
     */
    void fetch(String name, Path file) throws IOException;

    /** All objects. */
    List<Stored> list() throws IOException;

    /** Deletes an object, if it is there. */
    void delete(String name) throws IOException;
}
