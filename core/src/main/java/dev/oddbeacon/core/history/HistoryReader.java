package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.HistoryWriter.CommitRow;
import dev.oddbeacon.core.history.HistoryWriter.LineBlockRow;
import dev.oddbeacon.core.history.HistoryWriter.MessageBlockRow;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.segment.DamagedFileException;
import dev.oddbeacon.core.segment.GramLists;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SectionFile;
import dev.oddbeacon.core.segment.SectionReader;
import java.io.IOException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Reads what {@link HistoryWriter} wrote. Any number of threads may read. */
public final class HistoryReader implements AutoCloseable {
    private final SectionReader sections;
    private final MemorySegment commits;
    private final MemorySegment byId;
    private final MemorySegment parents;
    private final MemorySegment changes;
    private final MemorySegment messageBlocks;
    private final MemorySegment lineBlocks;
    private final GramLists messageGrams;
    private final GramLists lineGrams;
    private final List<Commit.Person> people;
    private volatile String[] paths; // read when they are first asked for

    /**
     * @throws DamagedFileException if a section does not have its checksum; lines and messages are compared by {@link
     * #verify}
     */
    public HistoryReader(Path file) throws IOException {
        sections = new SectionReader(file, HistoryWriter.MAGIC);
        try {
            for (int kind : new int[] {
                HistoryWriter.COMMITS,
                HistoryWriter.BY_ID,
                HistoryWriter.PARENTS,
                HistoryWriter.PEOPLE,
                HistoryWriter.CHANGES,
                HistoryWriter.PATHS,
                HistoryWriter.MESSAGE_BLOCKS,
                HistoryWriter.LINE_BLOCKS
            }) {
                sections.verify(kind);
            }
            commits = sections.section(HistoryWriter.COMMITS);
            byId = sections.section(HistoryWriter.BY_ID);
            parents = sections.section(HistoryWriter.PARENTS);
            changes = sections.section(HistoryWriter.CHANGES);
            messageBlocks = sections.section(HistoryWriter.MESSAGE_BLOCKS);
            lineBlocks = sections.section(HistoryWriter.LINE_BLOCKS);
            messageGrams = GramLists.read(
                    sections,
                    HistoryWriter.MESSAGE_GRAMS,
                    HistoryWriter.MESSAGE_GRAMS + 1,
                    HistoryWriter.MESSAGE_GRAMS + 2,
                    messageBlockCount());
            lineGrams = GramLists.read(
                    sections,
                    HistoryWriter.LINE_GRAMS,
                    HistoryWriter.LINE_GRAMS + 1,
                    HistoryWriter.LINE_GRAMS + 2,
                    lineBlockCount());
            people = readPeople();
        } catch (IOException | RuntimeException e) {
            sections.close();
            throw e;
        }
    }

    /** Whether the file with its name still has the size that it was written with. */
    public boolean isThere() {
        return sections.isThere();
    }

    /** Compares all of the file with its checksums. */
    public void verify() throws DamagedFileException {
        for (int kind = 1; kind <= HistoryWriter.SECTIONS; kind++) {
            sections.verify(kind);
        }
    }

    private List<Commit.Person> readPeople() throws DamagedFileException {
        List<Commit.Person> found = new ArrayList<>();
        String all = new String(
                sections.section(HistoryWriter.PEOPLE).toArray(ValueLayout.JAVA_BYTE), StandardCharsets.UTF_8);
        for (int at = 0; at < all.length(); ) {
            int nul = all.indexOf('\0', at);
            int end = all.indexOf('\n', nul);
            found.add(new Commit.Person(all.substring(at, nul), all.substring(nul + 1, end)));
            at = end + 1;
        }
        return List.copyOf(found);
    }

    public Path file() {
        return sections.file();
    }

    public long size() {
        return sections.size();
    }

    public int commitCount() {
        return (int) (commits.byteSize() / CommitRow.BYTES) - 1;
    }

    private static long row(int commit) {
        return (long) commit * CommitRow.BYTES;
    }

    public ObjectId id(int commit) {
        return SectionFile.id(commits, row(commit) + CommitRow.ID);
    }

    /** The number of a commit, or -1. */
    public int find(ObjectId id) {
        int low = 0;
        int high = commitCount() - 1;
        while (low <= high) {
            int middle = (low + high) >>> 1;
            int commit = byId.get(SectionFile.INT, middle * 4L);
            int order = id(commit).compareTo(id);
            if (order == 0) {
                return commit;
            } else if (order < 0) {
                low = middle + 1;
            } else {
                high = middle - 1;
            }
        }
        return -1;
    }

    /** The commits whose ids begin with some hexadecimal digits, at most a few. */
    public List<ObjectId> beginningWith(String digits, int most) {
        ObjectId first = ObjectId.of((digits + "0".repeat(40)).substring(0, 40));
        int low = 0;
        int high = commitCount();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (id(byId.get(SectionFile.INT, middle * 4L)).compareTo(first) < 0) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        List<ObjectId> found = new ArrayList<>();
        for (int i = low; i < commitCount() && found.size() < most; i++) {
            ObjectId id = id(byId.get(SectionFile.INT, i * 4L));
            if (!id.toString().startsWith(digits)) {
                break;
            }
            found.add(id);
        }
        return found;
    }

    public Commit.Moment authored(int commit) {
        return new Commit.Moment(commits.get(SectionFile.LONG, row(commit) + CommitRow.AUTHORED), (short)
                commits.get(SectionFile.INT, row(commit) + CommitRow.ZONES));
    }

    public Commit.Moment committed(int commit) {
        return new Commit.Moment(
                committedSeconds(commit), commits.get(SectionFile.INT, row(commit) + CommitRow.ZONES) >> 16);
    }

    public long committedSeconds(int commit) {
        return commits.get(SectionFile.LONG, row(commit) + CommitRow.COMMITTED);
    }

    /** Index into {@link #people}. */
    public int author(int commit) {
        return commits.get(SectionFile.INT, row(commit) + CommitRow.AUTHOR);
    }

    /** Index into {@link #people}. */
    public int committer(int commit) {
        return commits.get(SectionFile.INT, row(commit) + CommitRow.COMMITTER);
    }

    public List<Commit.Person> people() {
        return people;
    }

    private long messageStart(int commit) {
        return commits.get(SectionFile.LONG, row(commit) + CommitRow.MESSAGE);
    }

    public List<ObjectId> parents(int commit) {
        int start = commits.get(SectionFile.INT, row(commit) + CommitRow.PARENTS);
        int end = commits.get(SectionFile.INT, row(commit + 1) + CommitRow.PARENTS);
        List<ObjectId> ids = new ArrayList<>(end - start);
        for (int i = start; i < end; i++) {
            ids.add(SectionFile.id(parents, (long) i * ObjectId.BYTES));
        }
        return ids;
    }

    public int parentCount(int commit) {
        return commits.get(SectionFile.INT, row(commit + 1) + CommitRow.PARENTS)
                - commits.get(SectionFile.INT, row(commit) + CommitRow.PARENTS);
    }

    /** Whether the lines that a commit changed are here. */
    public boolean isWhole(int commit) {
        return commits.get(ValueLayout.JAVA_BYTE, row(commit) + CommitRow.LEFT_OUT) == 0;
    }

    /** The distinct paths that commits changed; {@link Changes} names them by number. */
    public String[] paths() {
        if (paths == null) {
            try {
                MemorySegment section = sections.section(HistoryWriter.PATHS);
                byte[] all = Packing.unpacked(section, 8, section.byteSize(), section.get(SectionFile.INT, 0));
                String[] found = new String[section.get(SectionFile.INT, 4)];
                int start = 0;
                for (int i = 0; i < found.length; i++) {
                    int end = start;
                    while (all[end] != 0) {
                        end++;
                    }
                    found[i] = new String(all, start, end - start, StandardCharsets.UTF_8);
                    start = end + 1;
                }
                paths = found;
            } catch (DamagedFileException e) {
                throw new IllegalStateException(e);
            }
        }
        return paths;
    }

    /** Goes through the files that commits changed. For one thread. */
    public final class Changes {
        private byte[] bytes = {};
        private int at;
        private PathChange.Kind kind;
        private boolean binary;
        private int path;
        private int from;
        private int added;
        private int removed;
        private int blob;

        /** Goes to before the first file of a commit. */
        public Changes of(int commit) {
            int start = commits.get(SectionFile.INT, row(commit) + CommitRow.CHANGES);
            int end = commits.get(SectionFile.INT, row(commit + 1) + CommitRow.CHANGES);
            bytes = changes.asSlice(start, end - start).toArray(ValueLayout.JAVA_BYTE);
            at = 0;
            return this;
        }

        private int number() {
            int part = bytes[at++];
            int value = part & 0x7F;
            for (int shift = 7; part < 0; shift += 7) {
                part = bytes[at++];
                value |= (part & 0x7F) << shift;
            }
            return value;
        }

        public boolean next() {
            if (at == bytes.length) {
                return false;
            }
            int head = bytes[at++];
            kind = PathChange.Kind.of(head & HistoryWriter.BINARY - 1);
            binary = (head & HistoryWriter.BINARY) != 0;
            path = number();
            from = kind == PathChange.Kind.RENAMED ? number() : path;
            added = number();
            removed = number();
            blob = (bytes[at] & 0xFF) << 24
                    | (bytes[at + 1] & 0xFF) << 16
                    | (bytes[at + 2] & 0xFF) << 8
                    | bytes[at + 3] & 0xFF;
            at += 4;
            return true;
        }

        public PathChange.Kind kind() {
            return kind;
        }

        public boolean binary() {
            return binary;
        }

        /** Index into {@link #paths}, of the path after, or of a file that was deleted. */
        public int path() {
            return path;
        }

        /** Index into {@link #paths}. */
        public int from() {
            return from;
        }

        public int added() {
            return added;
        }

        public int removed() {
            return removed;
        }

        /** The first 4 bytes of the id of the blob after. */
        public int blob() {
            return blob;
        }
    }

    public Changes changes() {
        return new Changes();
    }

    public GramLists messageGrams() {
        return messageGrams;
    }

    public GramLists lineGrams() {
        return lineGrams;
    }

    public int messageBlockCount() {
        return (int) (messageBlocks.byteSize() / MessageBlockRow.BYTES) - 1;
    }

    public int lineBlockCount() {
        return (int) (lineBlocks.byteSize() / LineBlockRow.BYTES) - 1;
    }

    /** The first commit with a message in a block; the block count is allowed. */
    public int firstOfMessages(int block) {
        return messageBlocks.get(SectionFile.INT, (long) block * MessageBlockRow.BYTES + MessageBlockRow.FIRST_COMMIT);
    }

    /** The first commit with lines in a block; the block count is allowed. */
    public int firstOfLines(int block) {
        return lineBlocks.get(SectionFile.INT, (long) block * LineBlockRow.BYTES + LineBlockRow.FIRST_COMMIT);
    }

    /** The last commit that may have lines in a block: the first of the next one. */
    public int lastOfLines(int block) {
        return Math.min(commitCount() - 1, firstOfLines(block + 1));
    }

    /** The first block that may have lines of a commit. */
    public int firstBlockOfLines(int commit) {
        int low = 0;
        int high = lineBlockCount();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (firstOfLines(middle) < commit) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return Math.max(0, low - 1);
    }

    /** The messages of a block, one after the other. */
    public byte[] messages(int block) {
        long start = messageBlocks.get(SectionFile.INT, (long) block * MessageBlockRow.BYTES + MessageBlockRow.START)
                & 0xFFFFFFFFL;
        long end =
                messageBlocks.get(SectionFile.INT, (long) (block + 1) * MessageBlockRow.BYTES + MessageBlockRow.START)
                        & 0xFFFFFFFFL;
        long bytes = messageBlocks.get(
                        SectionFile.LONG, (long) (block + 1) * MessageBlockRow.BYTES + MessageBlockRow.UNPACKED_START)
                - messageBlocks.get(
                        SectionFile.LONG, (long) block * MessageBlockRow.BYTES + MessageBlockRow.UNPACKED_START);
        return Packing.unpacked(section(HistoryWriter.MESSAGES), start, end, (int) bytes);
    }

    /**
     * Where the message of a commit starts in the texts of its block; of the one after the last of the block, where
     * they end.
     */
    public int startInMessages(int block, int commit) {
        return (int) (messageStart(commit)
                - messageBlocks.get(
                        SectionFile.LONG, (long) block * MessageBlockRow.BYTES + MessageBlockRow.UNPACKED_START));
    }

    /** The block with the message of a commit. */
    public int blockOfMessage(int commit) {
        int low = 0;
        int high = messageBlockCount() - 1;
        while (low < high) {
            int middle = (low + high + 1) >>> 1;
            if (firstOfMessages(middle) <= commit) {
                low = middle;
            } else {
                high = middle - 1;
            }
        }
        return low;
    }

    public String message(int commit) {
        int block = blockOfMessage(commit);
        byte[] all = messages(block);
        return message(all, startInMessages(block, commit), startInMessages(block, commit + 1));
    }

    /** @param all the texts of a block */
    static String message(byte[] all, int start, int end) {
        String message = new String(all, start, end - start, StandardCharsets.UTF_8);
        return message.equals("\n") ? "" : message;
    }

    /** All that is known of a commit. */
    public Commit commit(int commit) {
        return new Commit(
                id(commit),
                parents(commit),
                people.get(author(commit)),
                authored(commit),
                people.get(committer(commit)),
                committed(commit),
                message(commit));
    }

    public LineBlock lines(int block) {
        long at = (long) block * LineBlockRow.BYTES;
        return new LineBlock(
                Packing.unpacked(
                        section(HistoryWriter.LINES),
                        lineBlocks.get(SectionFile.LONG, at + LineBlockRow.START),
                        lineBlocks.get(SectionFile.LONG, at + LineBlockRow.BYTES + LineBlockRow.START),
                        lineBlocks.get(SectionFile.INT, at + LineBlockRow.UNPACKED_BYTES)),
                firstOfLines(block));
    }

    private MemorySegment section(int kind) {
        try {
            return sections.section(kind);
        } catch (DamagedFileException e) {
            throw new IllegalStateException(e); // it was there when the file was opened
        }
    }

    @Override
    public void close() {
        sections.close();
    }
}
