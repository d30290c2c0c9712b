package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.segment.About;
import dev.oddbeacon.core.segment.SectionWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Writes a snapshot: the files of one commit, by path. Read by {@link SnapshotReader}.
 *
 * <p>Paths are ordered by their UTF-8 bytes and share their beginnings: of each, only what differs from the one
 * before is written. Every 16th stands whole, at an offset of its own, so that reading one path means reading
 * at most 16.
 *
 * <pre>
 *   section    row bytes  what
 *   1 paths               for each file: bytes shared with the path before (varint), bytes that follow (varint), those
 *   2 blocks   4          for each 16 files, where their paths start
 *   3 files    40         id (20), standing (4), lines (4), bytes (8), number of the type (2), traits (2)
 *   4 types               the names of the types, in the order of their numbers: length (1), bytes
 *   5 about               version of the analysis (4), the group of repositories; see {@link About}
 * </pre>
 */
public final class SnapshotWriter {
    static final String MAGIC = "ODBSNP02";
    static final int PATHS = 1;
    static final int BLOCKS = 2;
    static final int FILES = 3;
    static final int TYPES = 4;
    static final int ABOUT = 5;
    static final int BLOCK = 16;
    /** Offsets in a row of section 3. */
    static final class FileRow {
        static final int ID = 0;
        static final int STANDING = 20;
        static final int LINES = 24;
        static final int SIZE = 28;
        /** The number of the type in the lower half, the traits in the upper. */
        static final int TYPE_AND_TRAITS = 36;

        static final int BYTES = 40;

        private FileRow() {}
    }

    private SnapshotWriter() {}

    /**
     * @param group of the repository: its text lies in segments of the same group
     * @param files in any order; no two with one path
     */
    public static void write(Path target, String group, List<SnapshotFile> files) throws IOException {
        record Row(byte[] path, SnapshotFile file) {}
        List<Row> rows = new ArrayList<>();
        for (SnapshotFile file : files) {
            rows.add(new Row(file.path().getBytes(StandardCharsets.UTF_8), file));
        }
        rows.sort((a, b) -> Arrays.compareUnsigned(a.path, b.path));
        try (SectionWriter out = new SectionWriter(target, MAGIC, ABOUT)) {
            List<Integer> blocks = new ArrayList<>();
            byte[] before = {};
            for (int i = 0; i < rows.size(); i++) {
                byte[] path = rows.get(i).path;
                int shared = 0;
                if (i % BLOCK == 0) {
                    blocks.add(Math.toIntExact(out.sectionBytes()));
                } else {
                    int difference = Arrays.mismatch(before, path);
                    if (difference < 0) {
                        throw new IllegalArgumentException(
                                "Two files with the path " + rows.get(i).file.path());
                    }
                    shared = difference;
                }
                varint(out, shared);
                varint(out, path.length - shared);
                byte[] rest = Arrays.copyOfRange(path, shared, path.length);
                out.bytes(rest, rest.length);
                before = path;
            }
            out.endSection(PATHS);
            for (int block : blocks) {
                out.u32(block);
            }
            out.endSection(BLOCKS);
            Map<String, Integer> types = new LinkedHashMap<>();
            for (Row row : rows) {
                SnapshotFile file = row.file;
                int type = types.computeIfAbsent(file.type(), _ -> types.size());
                out.row()
                        .id(file.id())
                        .at(FileRow.STANDING)
                        .u32(file.standing().code())
                        .at(FileRow.LINES)
                        .u32(file.lines())
                        .at(FileRow.SIZE)
                        .u64(file.bytes())
                        .at(FileRow.TYPE_AND_TRAITS)
                        .u32(type | file.traits() << 16)
                        .at(FileRow.BYTES);
            }
            out.endSection(FILES);
            for (String type : types.keySet()) {
                byte[] name = type.getBytes(StandardCharsets.UTF_8);
                out.u8(name.length).bytes(name, name.length);
            }
            out.endSection(TYPES);
            About.now(group).write(out, ABOUT);
            out.finish();
        }
    }

    private static void varint(SectionWriter out, int value) throws IOException {
        int rest = value;
        while (rest >= 0x80) {
            out.u8(rest & 0x7F | 0x80);
            rest >>>= 7;
        }
        out.u8(rest);
    }
}
