package dev.oddbeacon.core.ingest;

import dev.oddbeacon.core.segment.BlobState;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.segment.SegmentWriter;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.snapshot.SnapshotWriter;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.BooleanSupplier;
import java.util.function.IntToLongFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * From a tree of files to segments with the blobs that the index does not have yet, and a snapshot. Costs what is
 * new: blobs that any segment of the view holds are not read again.
 */
public final class Ingest {
    /** Text in one segment, roughly: with more of it searches look into fewer files. */
    public static final long SEGMENT_BYTES = 128L << 20;
    /** Text in one that is written from files: each thread takes about as much memory as that, until it is written. */
    private static final long WRITTEN_BYTES =
            Math.min(SEGMENT_BYTES, Runtime.getRuntime().maxMemory() / 8);
    /** A file above this can take as much memory as the rest of a segment: such files come last, one after the other. */
    private static final long HEAVY_BYTES = 8L << 20;
    /** Below this much new text a second thread does not pay. */
    private static final long PARALLEL_BYTES = 4L << 20;
    /** The first segment of each thread, where what is done can be searched before the rest is; the next is twice that. */
    private static final long FIRST_BYTES = 8L << 20;

    private final NewFiles files;
    private final long largestFile;
    private final int threads;
    private final String group;
    private final Queue<Path> made = new ConcurrentLinkedQueue<>();

    /**
     * @param files names of those that are written
     * @param largestFile in bytes; larger files are skipped
     * @param threads that read and analyse at a time
     * @param group of repositories whose segments are used and written; empty where there is one for all
     */
    public Ingest(NewFiles files, long largestFile, int threads, String group) {
        this.files = files;
        this.largestFile = largestFile;
        this.threads = threads;
        this.group = group;
    }

    /**
     * What came out, all of it on disk.
     *
     * @param segments that were not handed out with an earlier part
     * @param lines of the files that are searched
     * @param bytes of all files
     * @param unread bytes of files that are not read yet
     */
    public record Ingested(
            List<Path> segments, Path snapshot, int files, long lines, long bytes, int skipped, long unread) {
        /** All files that were written. */
        public List<Path> written() {
            return Stream.concat(segments.stream(), Stream.of(snapshot)).toList();
        }
    }

    /** Takes over what can be searched of a tree while the rest is read. */
    @FunctionalInterface
    public interface Parts {
        /**
         * @param part whose snapshot has all files, also those that are not read yet; it takes the place of the part
         *     before. Its files are the caller's from now on, also if this fails
         */
        void take(Ingested part) throws IOException;
    }

    /** When parts are handed out. @param least new bytes of a tree for which it pays @param pause between two of them */
    public record InParts(Parts parts, long least, Duration pause) {}

    /** Facts about a blob's text. */
    record BlobText(Standing standing, int lines, Signs signs) {
        static BlobText none(Standing standing) {
            return new BlobText(standing, 0, Signs.NONE);
        }
    }

    /** What there is to do for a tree. */
    public record Plan(
            SourceTree tree,
            List<SourceTree.Entry> entries,
            List<SourceTree.Entry> unknown,
            long newBytes,
            Map<ObjectId, BlobText> texts) {
        /** Whether it is so much that several threads do it. */
        public boolean isLarge() {
            return newBytes >= PARALLEL_BYTES;
        }
    }

    /**
     * Lists a tree.
     *
     * @param known holds the blobs that need not be read; the caller keeps it open until the plan is run
     * @throws TreeTooLargeException if it has more than is indexed
     * @throws IOException if the tree cannot be read
     */
    public Plan plan(SourceTree tree, View known) throws IOException {
        Map<ObjectId, BlobText> texts = new ConcurrentHashMap<>();
        List<SegmentReader> segments = known.segmentsOf(group);
        List<SourceTree.Entry> entries = tree.entries(id -> lookUp(segments, id, texts));
        List<SourceTree.Entry> unknown = new ArrayList<>();
        Set<ObjectId> seen = new LinkedHashSet<>();
        long newBytes = 0;
        for (SourceTree.Entry entry : entries) {
            if (entry.kind() != SourceTree.Kind.FILE || entry.bytes() > largestFile || !seen.add(entry.id())) {
                continue;
            }
            if (!texts.containsKey(entry.id()) && lookUp(segments, entry.id(), texts) < 0) {
                unknown.add(entry);
                newBytes += entry.bytes();
            }
        }
        return new Plan(tree, entries, unknown, newBytes, texts);
    }

    /** Plans and runs at once. @see #plan @see #run(Plan, IngestProgress, BooleanSupplier, Optional) */
    public Ingested run(SourceTree tree, View known, IngestProgress progress, BooleanSupplier cancelled)
            throws IOException {
        return run(plan(tree, known), progress, cancelled, Optional.empty());
    }

    /**
     * Runs until all is written.
     *
     * @param cancelled asked between files
     * @param inParts if what is done is to be searched before the rest is
     * @throws CancellationException if cancelled
     * @throws IOException if files cannot be written; single blobs that cannot be read are skipped. Files written so
     *         far are deleted, but for those that were handed out
     */
    public Ingested run(Plan plan, IngestProgress progress, BooleanSupplier cancelled, Optional<InParts> inParts)
            throws IOException {
        try {
            return write(plan, progress, cancelled, inParts.filter(wanted -> plan.newBytes >= wanted.least));
        } catch (IOException | RuntimeException e) {
            for (Path file : made) {
                Files.deleteIfExists(file);
            }
            throw e;
        }
    }

    private Ingested write(Plan plan, IngestProgress progress, BooleanSupplier cancelled, Optional<InParts> inParts)
            throws IOException {
        progress.expect(plan.newBytes);
        Names names = new Names(
                plan.tree.markings(plan.entries),
                plan.entries.stream().map(SourceTree.Entry::path).collect(Collectors.toSet()));
        Finished finished = new Finished(plan, names, inParts);
        finished.handOut();
        write(plan, names, finished, progress, cancelled);
        return finished.rest();
    }

    /**
     * What is done of a tree. Threads add the segments that they have finished; one of them hands out what there is by
     * then, while the others go on.
     */
    private final class Finished {
        private final Plan plan;
        private final Names names;
        private final Optional<InParts> inParts;
        private List<Path> segments = new ArrayList<>(); // not handed out; guarded by this
        private long handedOut = System.nanoTime(); // guarded by this

        Finished(Plan plan, Names names, Optional<InParts> inParts) {
            this.plan = plan;
            this.names = names;
            this.inParts = inParts;
        }

        /** @param segment empty if no blob could be read @param texts of its blobs, which are searched from now on */
        synchronized void add(Optional<Path> segment, Map<ObjectId, BlobText> texts) throws IOException {
            segment.ifPresent(segments::add);
            plan.texts.putAll(texts);
            if (inParts.isPresent()
                    && System.nanoTime() - handedOut > inParts.get().pause.toNanos()) {
                handOut();
            }
        }

        synchronized void handOut() throws IOException {
            if (inParts.isPresent()) {
                Ingested part = snapshot(plan.entries, names, plan.texts, segments);
                made.removeAll(part.segments);
                made.remove(part.snapshot);
                segments = new ArrayList<>();
                inParts.get().parts.take(part);
                handedOut = System.nanoTime();
            }
        }

        synchronized Ingested rest() throws IOException {
            return snapshot(plan.entries, names, plan.texts, segments);
        }

        /** How much text goes into a segment, the first ones being small where they are waited for. */
        long segmentBytes(int number) {
            return inParts.isPresent() ? Math.min(WRITTEN_BYTES, FIRST_BYTES << Math.min(number, 10)) : WRITTEN_BYTES;
        }
    }

    /** Facts about files from their names and attributes. */
    private record Names(SourceTree.Markings markings, Set<String> paths) {
        String type(String path, Signs signs, boolean isText) {
            return markings.of(path).type().orElseGet(() -> FileTypes.of(path, signs, isText, paths::contains));
        }
    }

    /** Notes what segments have of a blob. @return its bytes, -1 if they have nothing */
    private static long lookUp(List<SegmentReader> segments, ObjectId id, Map<ObjectId, BlobText> texts) {
        for (SegmentReader segment : segments) {
            int blob = segment.find(id);
            if (blob >= 0) {
                texts.put(
                        id,
                        new BlobText(
                                segment.state(blob) == BlobState.TEXT ? Standing.SEARCHED : Standing.BINARY,
                                segment.lines(blob),
                                segment.signs(blob)));
                return segment.fileBytes(blob);
            }
        }
        return -1;
    }

    private void write(Plan plan, Names names, Finished finished, IngestProgress progress, BooleanSupplier cancelled)
            throws IOException {
        int workers = plan.newBytes < PARALLEL_BYTES ? 1 : threads;
        Map<Boolean, List<SourceTree.Entry>> isHeavy =
                plan.unknown.stream().collect(Collectors.partitioningBy(entry -> entry.bytes() > HEAVY_BYTES));
        try (ExecutorService executor = Executors.newFixedThreadPool(workers)) {
            List<Future<Void>> running = new ArrayList<>();
            for (List<SourceTree.Entry> share : shares(isHeavy.get(false), workers)) {
                running.add(executor.submit(() -> {
                    writeShare(plan.tree, share, finished::segmentBytes, names, finished, progress, cancelled);
                    return null;
                }));
            }
            for (Future<Void> worker : running) {
                worker.get();
            }
            if (!isHeavy.get(true).isEmpty()) { // now that the tables of the others are gone; each has its own segment
                executor.submit(() -> {
                            writeShare(plan.tree, isHeavy.get(true), _ -> 0, names, finished, progress, cancelled);
                            return null;
                        })
                        .get();
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        } catch (ExecutionException e) {
            if (e.getCause() instanceof IOException failure) {
                throw failure;
            }
            if (e.getCause() instanceof CancellationException cancellation) {
                throw cancellation;
            }
            throw new IllegalStateException(e.getCause());
        }
    }

    /** Neighbours stay together, so that a folder's files are neighbours in a segment as well. */
    private static List<List<SourceTree.Entry>> shares(List<SourceTree.Entry> entries, int count) {
        long bytes = entries.stream().mapToLong(SourceTree.Entry::bytes).sum();
        List<List<SourceTree.Entry>> shares = new ArrayList<>();
        List<SourceTree.Entry> share = new ArrayList<>();
        long filled = 0;
        for (SourceTree.Entry entry : entries) {
            share.add(entry);
            filled += entry.bytes();
            if (filled >= bytes / count && shares.size() < count - 1) {
                shares.add(share);
                share = new ArrayList<>();
                filled = 0;
            }
        }
        if (!share.isEmpty()) {
            shares.add(share);
        }
        return shares;
    }

    private void writeShare(
            SourceTree tree,
            List<SourceTree.Entry> share,
            IntToLongFunction segmentBytes,
            Names names,
            Finished finished,
            IngestProgress progress,
            BooleanSupplier cancelled)
            throws IOException {
        int number = 0;
        Map<ObjectId, BlobText> texts = new HashMap<>(); // of the segment that is being written
        SegmentWriter.Workshop workshop = new SegmentWriter.Workshop();
        SegmentWriter writer = workshop.open(newFile("segment"), group);
        try (Blobs blobs = tree.blobs()) {
            for (SourceTree.Entry entry : share) {
                if (cancelled.getAsBoolean()) {
                    throw new CancellationException("cancelled");
                }
                if (writer.blobs() > 0
                        && (writer.contentBytes() >= segmentBytes.applyAsLong(number)
                                || writer.isFull(entry.bytes()))) {
                    finished.add(Optional.of(writer.finish()), texts);
                    texts.clear();
                    number++;
                    writer = workshop.open(newFile("segment"), group);
                }
                texts.put(entry.id(), add(blobs, entry, names, writer));
                progress.add(entry.bytes());
            }
            finished.add(writer.blobs() > 0 ? Optional.of(writer.finish()) : Optional.empty(), texts);
        } finally {
            writer.close();
        }
    }

    private static BlobText add(Blobs blobs, SourceTree.Entry entry, Names names, SegmentWriter writer)
            throws IOException {
        byte[] file;
        try {
            file = blobs.read(entry.id());
        } catch (IOException e) {
            return BlobText.none(Standing.UNREADABLE);
        }
        Optional<TextDecoder.Text> text = TextDecoder.decode(file);
        if (text.isEmpty()) {
            writer.addBinary(entry.id(), file.length);
            return BlobText.none(Standing.BINARY);
        }
        SegmentWriter.Added added = writer.addText(
                entry.id(), file.length, text.get(), signs -> Language.ofType(names.type(entry.path(), signs, true)));
        return new BlobText(Standing.SEARCHED, added.lines(), added.signs());
    }

    private Ingested snapshot(
            List<SourceTree.Entry> entries, Names names, Map<ObjectId, BlobText> texts, List<Path> segments)
            throws IOException {
        List<SnapshotFile> files = new ArrayList<>(entries.size());
        long lines = 0;
        long bytes = 0;
        int skipped = 0;
        long unread = 0;
        for (SourceTree.Entry entry : entries) {
            BlobText text = switch (entry.kind()) {
                case LINK -> BlobText.none(Standing.LINK);
                case SUBMODULE -> BlobText.none(Standing.SUBMODULE);
                case FILE ->
                    entry.bytes() > largestFile
                            ? BlobText.none(Standing.TOO_LARGE)
                            : texts.getOrDefault(entry.id(), BlobText.none(Standing.UNREAD));
            };
            files.add(file(entry, text, names));
            lines += text.lines;
            bytes += entry.bytes();
            skipped += text.standing == Standing.SEARCHED || text.standing == Standing.UNREAD ? 0 : 1;
            unread += text.standing == Standing.UNREAD ? entry.bytes() : 0;
        }
        Path snapshot = newFile("snapshot");
        SnapshotWriter.write(snapshot, group, files);
        return new Ingested(segments, snapshot, files.size(), lines, bytes, skipped, unread);
    }

    private static SnapshotFile file(SourceTree.Entry entry, BlobText text, Names names) {
        String type = names.type(entry.path(), text.signs, text.standing != Standing.BINARY);
        int traits = Traits.mask(names.markings
                .of(entry.path())
                .traits()
                .orElseGet(() -> Traits.of(entry.path(), type, text.signs, text.standing != Standing.BINARY)
                        .keySet()));
        return new SnapshotFile(entry.path(), entry.id(), text.standing, entry.bytes(), text.lines, type, traits);
    }

    private Path newFile(String kind) {
        Path file = files.next(kind);
        made.add(file);
        return file;
    }
}
