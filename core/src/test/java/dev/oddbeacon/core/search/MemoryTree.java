package dev.oddbeacon.core.search;

import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.ToLongFunction;

/** A tree of files in memory, with the ids that Git would give them. */
public final class MemoryTree implements SourceTree {
    private final TreeMap<String, Entry> entries = new TreeMap<>();
    private final Map<ObjectId, byte[]> blobs = new HashMap<>();

    public MemoryTree file(String path, byte[] content) {
        ObjectId id = id(content);
        entries.put(path, new Entry(path, id, Kind.FILE, content.length));
        blobs.put(id, content);
        return this;
    }

    public MemoryTree other(String path, Kind kind) {
        entries.put(path, new Entry(path, new ObjectId(1, 2, path.hashCode()), kind, 0));
        return this;
    }

    /** A file that the tree names but nobody can read. */
    public MemoryTree missing(String path) {
        entries.put(path, new Entry(path, new ObjectId(3, 4, path.hashCode()), Kind.FILE, 10));
        return this;
    }

    @Override
    public List<Entry> entries(ToLongFunction<ObjectId> knownBytes) {
        return new ArrayList<>(entries.values());
    }

    @Override
    public Blobs blobs() {
        return new Blobs() {
            @Override
            public byte[] read(ObjectId id) throws IOException {
                byte[] blob = blobs.get(id);
                if (blob == null) {
                    throw new IOException("missing " + id);
                }
                return blob;
            }

            @Override
            public void close() {}
        };
    }

    static ObjectId id(byte[] content) {
        try {
            MessageDigest sha = MessageDigest.getInstance("SHA-1");
            sha.update(("blob " + content.length + "\0").getBytes(java.nio.charset.StandardCharsets.US_ASCII));
            return ObjectId.of(HexFormat.of().formatHex(sha.digest(content)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
