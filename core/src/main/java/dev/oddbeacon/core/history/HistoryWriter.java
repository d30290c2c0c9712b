package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.LineRun;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.PostingsBuilder;
import dev.oddbeacon.core.segment.SectionWriter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;

/**
 * Writes commits of one repository, with their messages, changed files and changed lines. Read by {@link
 * HistoryReader}.
 *
 * <p>Messages and lines are packed in blocks, and postings say which blocks hold a gram: a search unpacks the few
 * blocks that may match. Lines that a commit removed from a file stand together, and so do those that it added, so that
 * each is a text which any matcher can go through.
 *
 * <pre>
 *   section            row bytes  what
 *    1 commits         72         id (20), when it was authored (8) and committed (8), seconds since 1970, the minutes
 * of both zones (2, 2), author (4) and committer (4),
 *                                 numbers in section 4, where its message starts in the unpacked messages (8), where
 * its parents start in section 3 (4), where its changes
 *                                 start in section 5 (4), its lines unless too many (1: 1 if left out), zero (7); then
 * one row with the ends
 *    2 by id           4          numbers of the commits, in the order of their ids
 *    3 parents         20         ids
 *    4 people                     name, NUL, address, line feed
 *    5 changes                    of each commit, for each file: its kind and whether it is binary (1: kind + 8),
 * number of its path, of the path before if it was renamed, lines
 *                                 added, lines removed, the first 4 bytes of the blob after; all but those as in
 * postings
 *    6 paths                      packed: the distinct paths, each followed by NUL; before them how many bytes they are
 * unpacked (4), and how many paths (4)
 *    7 messages                   packed blocks of about 16 KB: the messages, one after the other
 *    8 message blocks  16         where each starts in section 7 (4), its first commit (4), where it starts in the
 * unpacked messages (8); then one row with the ends
 *    9 to 11                      grams, ends, postings of the message blocks, see {@link PostingsBuilder}
 *   12 lines                      packed blocks of about 64 KB: how many runs; of each: commits since that of the run
 * before (of the first: since the block's), number of the
 *                                 change in its commit, twice the hunks, plus one if they came; of each hunk the lines
 * since the one before, and its lines; bytes of text;
 *                                 then the texts
 *   13 line blocks    16         where each starts in section 12 (8), its first commit (4), its bytes unpacked (4);
 * then one row with the ends
 *   14 to 16                      grams, ends, postings of the line blocks
 * </pre>
 */
public final class HistoryWriter implements AutoCloseable {
    static final String MAGIC = "ODBHIS01";
    static final int COMMITS = 1;
    static final int BY_ID = 2;
    static final int PARENTS = 3;
    static final int PEOPLE = 4;
    static final int CHANGES = 5;
    static final int PATHS = 6;
    static final int MESSAGES = 7;
    static final int MESSAGE_BLOCKS = 8;
    static final int MESSAGE_GRAMS = 9;
    static final int LINES = 12;
    static final int LINE_BLOCKS = 13;
    static final int LINE_GRAMS = 14;
    static final int SECTIONS = 16;
    /** Offsets in a row of section 1. */
    static final class CommitRow {
        static final int ID = 0;
        static final int AUTHORED = 20;
        static final int COMMITTED = 28;
        /** The author in the lower half, the committer in the upper half. */
        static final int ZONES = 36;

        static final int AUTHOR = 40;
        static final int COMMITTER = 44;
        static final int MESSAGE = 48;
        static final int PARENTS = 56;
        static final int CHANGES = 60;
        static final int LEFT_OUT = 64;
        static final int BYTES = 72;

        private CommitRow() {}
    }

    /** Offsets in a row of section 8. */
    static final class MessageBlockRow {
        static final int START = 0;
        static final int FIRST_COMMIT = 4;
        static final int UNPACKED_START = 8;
        static final int BYTES = 16;

        private MessageBlockRow() {}
    }

    /** Offsets in a row of section 13. */
    static final class LineBlockRow {
        static final int START = 0;
        static final int FIRST_COMMIT = 8;
        static final int UNPACKED_BYTES = 12;
        static final int BYTES = 16;

        private LineBlockRow() {}
    }

    static final int BINARY = 8;
    private static final int MESSAGE_BLOCK = 16 << 10;
    private static final int LINE_BLOCK = 32 << 10;

    private record Row(
            Commit commit, int author, int committer, long message, int parents, int changes, boolean whole) {}

    private final SectionWriter out;
    private final List<Row> rows = new ArrayList<>();
    private final List<ObjectId> parents = new ArrayList<>();
    private final Map<Commit.Person, Integer> people = new LinkedHashMap<>();
    private final Map<String, Integer> paths = new LinkedHashMap<>(); // in the order in which they came
    private final List<CommitChanges> changed = new ArrayList<>(); // without lines
    private final Blocks messages = new Blocks(MESSAGE_BLOCK);
    private final Blocks lines = new Blocks(LINE_BLOCK);
    private final List<Long> messageStarts = new ArrayList<>(); // of blocks, unpacked
    private long messageBytes;
    private final RunHeads heads = new RunHeads();
    private int changesBytes;
    private long lineBytes;

    public HistoryWriter(Path file) throws IOException {
        this.out = new SectionWriter(file, MAGIC, SECTIONS);
    }

    /** A text in blocks, each packed by itself. */
    private static final class Blocks {
        private final int size;
        private final PostingsBuilder postings = new PostingsBuilder();
        private final ByteArrayOutputStream packed = new ByteArrayOutputStream();
        private final List<int[]> rows = new ArrayList<>(); // start, first commit, bytes unpacked
        private byte[] text = new byte[1 << 16];
        private int filled;
        private int firstCommit = -1;

        Blocks(int size) {
            this.size = size;
        }

        void add(int commit, byte[] bytes) {
            firstCommit = firstCommit < 0 ? commit : firstCommit;
            if (filled + bytes.length > text.length) {
                text = Arrays.copyOf(text, Math.max(text.length * 2, filled + bytes.length));
            }
            System.arraycopy(bytes, 0, text, filled, bytes.length);
            filled += bytes.length;
        }

        int room() {
            return size - filled;
        }

        /** Packs what there is. @param head stands before the text, and is not searched */
        void end(byte[] head) {
            if (filled == 0) {
                return;
            }
            postings.add(text, 0, filled, rows.size());
            rows.add(new int[] {packed.size(), firstCommit, head.length + filled});
            byte[] all = Arrays.copyOf(head, head.length + filled);
            System.arraycopy(text, 0, all, head.length, filled);
            packed.writeBytes(Packing.packed(all));
            filled = 0;
            firstCommit = -1;
        }
    }

    /** The header before the text of a block of lines. */
    private static final class RunHeads {
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        private int count;
        private int commit;

        void add(int ofCommit, int change, LineRun run) {
            put(bytes, count == 0 ? 0 : ofCommit - commit);
            commit = ofCommit;
            count++;
            put(bytes, change);
            put(bytes, run.hunks().length | (run.added() ? 1 : 0)); // twice the hunks is the length
            int line = 0;
            for (int i = 0; i < run.hunks().length; i += 2) {
                put(bytes, run.hunks()[i] - line);
                put(bytes, run.hunks()[i + 1]);
                line = run.hunks()[i] + run.hunks()[i + 1];
            }
            put(bytes, run.text().length);
        }

        byte[] take() {
            ByteArrayOutputStream head = new ByteArrayOutputStream();
            put(head, count);
            head.writeBytes(bytes.toByteArray());
            bytes.reset();
            count = 0;
            return head.toByteArray();
        }
    }

    static void put(ByteArrayOutputStream bytes, int value) {
        int rest = value;
        while (rest >>> 7 != 0) {
            bytes.write(rest & 0x7F | 0x80);
            rest >>>= 7;
        }
        bytes.write(rest);
    }

    void add(CommitChanges all) {
        Commit commit = all.commit();
        int number = rows.size();
        rows.add(new Row(
                commit,
                people.computeIfAbsent(commit.author(), _ -> people.size()),
                people.computeIfAbsent(commit.committer(), _ -> people.size()),
                messageBytes,
                parents.size(),
                0,
                all.whole()));
        parents.addAll(commit.parents());
        byte[] message = commit.message().getBytes(StandardCharsets.UTF_8);
        if (messages.room() < MESSAGE_BLOCK && messages.room() < message.length) {
            endMessages();
        }
        if (messages.firstCommit < 0) {
            messageStarts.add(messageBytes);
        }
        messages.add(
                number,
                message.length == 0 ? new byte[] {'\n'} : message); // a block that is not empty for every commit
        messageBytes += Math.max(1, message.length);
        int change = 0;
        List<CommitChanges.FileLines> files = new ArrayList<>();
        for (CommitChanges.FileLines file : all.files()) {
            paths.computeIfAbsent(file.change().path(), _ -> paths.size());
            paths.computeIfAbsent(file.change().from(), _ -> paths.size());
            for (LineRun run : file.runs()) {
                add(number, change, run);
            }
            files.add(
                    new CommitChanges.FileLines(file.change(), file.added(), file.removed(), file.binary(), List.of()));
            change++;
        }
        changed.add(new CommitChanges(commit, files, all.whole()));
        changesBytes += 12 * files.size();
    }

    private void endMessages() {
        messages.end(new byte[0]);
    }

    private void add(int commit, int change, LineRun run) {
        LineRun rest = run;
        while (rest.text().length > 0) {
            if (lines.room() <= 0) {
                lines.end(heads.take());
            }
            LineRun[] parts = rest.text().length <= lines.room()
                    ? new LineRun[] {rest, new LineRun(run.added(), new int[0], new byte[0])}
                    : rest.cut(lines.room());
            heads.add(commit, change, parts[0]);
            lines.add(commit, parts[0].text());
            lineBytes += parts[0].text().length;
            rest = parts[1];
        }
    }

    /** Bytes of changed lines so far. */
    public long lineBytes() {
        return lineBytes;
    }

    public int commits() {
        return rows.size();
    }

    /** Bytes that are held in memory until the end, roughly. */
    long held() {
        return lines.packed.size() + messages.packed.size() + changesBytes + 200L * rows.size();
    }

    /** Completes the file. */
    public Path finish() throws IOException {
        endMessages();
        lines.end(heads.take());
        Map<String, Integer> sorted = new TreeMap<>(); // neighbours share much, which packs well
        paths.keySet().forEach(path -> sorted.put(path, 0));
        int next = 0;
        for (Map.Entry<String, Integer> path : sorted.entrySet()) {
            path.setValue(next++);
        }
        ByteArrayOutputStream changes = new ByteArrayOutputStream();
        int[] starts = new int[rows.size() + 1];
        for (int i = 0; i < rows.size(); i++) {
            starts[i] = changes.size();
            changed.get(i).files().forEach(file -> put(changes, file, sorted));
        }
        starts[rows.size()] = changes.size();
        writeCommits(starts);
        writeById();
        for (ObjectId parent : parents) {
            out.id(parent);
        }
        out.endSection(PARENTS);
        for (Commit.Person person : people.keySet()) {
            byte[] line = (person.name() + "\0" + person.email() + "\n").getBytes(StandardCharsets.UTF_8);
            out.bytes(line, line.length);
        }
        out.endSection(PEOPLE);
        out.bytes(changes.toByteArray(), changes.size()).endSection(CHANGES);
        writePaths(sorted);
        out.bytes(messages.packed.toByteArray(), messages.packed.size()).endSection(MESSAGES);
        for (int i = 0; i < messages.rows.size(); i++) {
            out.row()
                    .at(MessageBlockRow.START)
                    .u32(messages.rows.get(i)[0])
                    .at(MessageBlockRow.FIRST_COMMIT)
                    .u32(messages.rows.get(i)[1])
                    .at(MessageBlockRow.UNPACKED_START)
                    .u64(messageStarts.get(i))
                    .at(MessageBlockRow.BYTES);
        }
        out.u32(messages.packed.size()).u32(rows.size()).u64(messageBytes).endSection(MESSAGE_BLOCKS);
        messages.postings.write(out, MESSAGE_GRAMS, MESSAGE_GRAMS + 1, MESSAGE_GRAMS + 2);
        out.bytes(lines.packed.toByteArray(), lines.packed.size()).endSection(LINES);
        for (int[] row : lines.rows) {
            out.row()
                    .at(LineBlockRow.START)
                    .u64(row[0])
                    .at(LineBlockRow.FIRST_COMMIT)
                    .u32(row[1])
                    .at(LineBlockRow.UNPACKED_BYTES)
                    .u32(row[2])
                    .at(LineBlockRow.BYTES);
        }
        out.u64(lines.packed.size()).u32(rows.size()).u32(0).endSection(LINE_BLOCKS);
        lines.postings.write(out, LINE_GRAMS, LINE_GRAMS + 1, LINE_GRAMS + 2);
        return out.finish();
    }

    private static void put(ByteArrayOutputStream changes, CommitChanges.FileLines file, Map<String, Integer> numbers) {
        PathChange change = file.change();
        changes.write(change.kind().code() | (file.binary() ? BINARY : 0));
        put(changes, numbers.get(change.path()));
        if (change.kind() == PathChange.Kind.RENAMED) {
            put(changes, numbers.get(change.from()));
        }
        put(changes, file.added());
        put(changes, file.removed());
        int blob = (int) (change.after().high() >>> 32);
        for (int shift = 24; shift >= 0; shift -= 8) {
            changes.write(blob >>> shift);
        }
    }

    private void writeCommits(int[] changeStarts) throws IOException {
        for (int i = 0; i < rows.size(); i++) {
            Row row = rows.get(i);
            Commit commit = row.commit;
            out.row()
                    .at(CommitRow.ID)
                    .id(commit.id())
                    .at(CommitRow.AUTHORED)
                    .u64(commit.authored().seconds())
                    .at(CommitRow.COMMITTED)
                    .u64(commit.committed().seconds())
                    .at(CommitRow.ZONES)
                    .u32(commit.authored().zoneMinutes() & 0xFFFF
                            | commit.committed().zoneMinutes() << 16)
                    .at(CommitRow.AUTHOR)
                    .u32(row.author)
                    .at(CommitRow.COMMITTER)
                    .u32(row.committer)
                    .at(CommitRow.MESSAGE)
                    .u64(row.message)
                    .at(CommitRow.PARENTS)
                    .u32(row.parents)
                    .at(CommitRow.CHANGES)
                    .u32(changeStarts[i])
                    .at(CommitRow.LEFT_OUT)
                    .u8(row.whole ? 0 : 1)
                    .u8(0)
                    .u8(0)
                    .u8(0)
                    .u32(0)
                    .at(CommitRow.BYTES);
        }
        out.row()
                .id(PathChange.NOTHING)
                .u64(0)
                .u64(0)
                .u32(0)
                .u32(0)
                .u32(0)
                .at(CommitRow.MESSAGE)
                .u64(messageBytes)
                .at(CommitRow.PARENTS)
                .u32(parents.size())
                .at(CommitRow.CHANGES)
                .u32(changeStarts[rows.size()])
                .u64(0)
                .at(CommitRow.BYTES);
        out.endSection(COMMITS);
    }

    private void writeById() throws IOException {
        int[] byId = IntStream.range(0, rows.size())
                .boxed()
                .sorted(Comparator.comparing(
                        (Integer commit) -> rows.get(commit).commit.id()))
                .mapToInt(Integer::intValue)
                .toArray();
        for (int commit : byId) {
            out.u32(commit);
        }
        out.endSection(BY_ID);
    }

    private void writePaths(Map<String, Integer> sorted) throws IOException {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        for (String path : sorted.keySet()) {
            all.writeBytes(path.getBytes(StandardCharsets.UTF_8));
            all.write(0);
        }
        out.u32(all.size()).u32(sorted.size());
        byte[] packed = Packing.packed(all.toByteArray());
        out.bytes(packed, packed.length);
        out.endSection(PATHS);
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
