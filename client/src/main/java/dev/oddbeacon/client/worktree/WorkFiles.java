package dev.oddbeacon.client.worktree;

import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import java.util.function.ToLongFunction;

/** Files of a work tree as they are now, with the ids that Git would give them. */
final class WorkFiles implements SourceTree {
    private final NavigableMap<String, Entry> entries = new TreeMap<>();
    private final Map<ObjectId, byte[]> contents = new HashMap<>();

    WorkFiles(Map<String, byte[]> files) {
        files.forEach((path, content) -> {
            ObjectId id = id(content);
            entries.put(path, new Entry(path, id, Kind.FILE, content.length));
            contents.put(id, content);
        });
    }

    @Override
    public List<Entry> entries(ToLongFunction<ObjectId> knownBytes) {
        return List.copyOf(entries.values());
    }

    @Override
    public Blobs blobs() {
        return new Blobs() {
            @Override
            public byte[] read(ObjectId id) throws IOException {
                return contents.get(id);
            }

            @Override
            public void close() {
                // nothing is open
            }
        };
    }

    private static ObjectId id(byte[] content) {
        try {
            MessageDigest sha = MessageDigest.getInstance("SHA-1");
            sha.update(("blob " + content.length + "\0").getBytes(StandardCharsets.US_ASCII));
            return ObjectId.of(HexFormat.of().formatHex(sha.digest(content)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
