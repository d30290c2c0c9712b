package dev.oddbeacon.core.history;

import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;

/**
 * Writes the commits that the index lacks, the newest first, into files of a bounded size. Each file is complete, and
 * may be searched, before the next is begun: whoever is interrupted goes on with what is missing.
 */
public final class HistoryIngest {
    /** Changed lines of a file, roughly. In bytes. */
    private static final long FILE_BYTES = 96L << 20;

    private static final long FILE_HELD = 48L << 20;
    private static final int IN_FLIGHT = 24; // commits that are compared ahead of the one that is written

    private final NewFiles files;
    private final int threads;

    public HistoryIngest(NewFiles files, int threads) {
        this.files = files;
        this.threads = threads;
    }

    /** Opens the source once more, for another thread. */
    @FunctionalInterface
    public interface Sources {
        CommitSource open() throws IOException;
    }

    /** Takes the files as they become complete. */
    @FunctionalInterface
    public interface Sink {
        void file(Path file) throws IOException;
    }

    /** Progress of the ingest. */
    @FunctionalInterface
    public interface Progress {
        void step(int done, int total);
    }

    private record Reader(CommitSource source, Blobs blobs) {}

    /**
     * @param tips the commits whose past is wanted
     * @param most commits to tell
     * @param knownIsWhole whether the index has all that lies behind what it has
     * @param known what the index has
     * @throws CancellationException if {@code stopped} says so
     */
    public void run(
            Sources sources,
            Collection<ObjectId> tips,
            int most,
            boolean knownIsWhole,
            Predicate<ObjectId> known,
            Progress progress,
            BooleanSupplier stopped,
            Sink sink)
            throws IOException {
        List<ObjectId> missing = new ArrayList<>();
        try (CommitSource source = sources.open()) {
            source.commits(tips, most, knownIsWhole, known, missing::add);
        }
        if (missing.isEmpty()) {
            return;
        }
        int workers = Math.min(threads, Math.max(1, missing.size() / 4));
        BlockingQueue<Reader> readers = new LinkedBlockingQueue<>();
        List<Reader> opened = new ArrayList<>();
        try (ExecutorService executor = Executors.newFixedThreadPool(workers)) {
            for (int i = 0; i < workers; i++) {
                CommitSource source = sources.open();
                opened.add(new Reader(source, source.blobs()));
            }
            readers.addAll(opened);
            write(missing, executor, readers, progress, stopped, sink);
        } finally {
            for (Reader reader : opened) {
                reader.blobs.close();
                reader.source.close();
            }
        }
    }

    private void write(
            List<ObjectId> missing,
            ExecutorService executor,
            BlockingQueue<Reader> readers,
            Progress progress,
            BooleanSupplier stopped,
            Sink sink)
            throws IOException {
        Deque<Future<CommitChanges>> running = new ArrayDeque<>();
        HistoryWriter writer = open();
        try {
            int next = 0;
            for (int done = 0; done < missing.size(); done++) {
                while (next < missing.size() && running.size() < IN_FLIGHT) {
                    ObjectId id = missing.get(next++);
                    running.add(executor.submit(() -> read(readers, id)));
                }
                if (stopped.getAsBoolean()) {
                    throw new CancellationException("cancelled");
                }
                writer.add(get(running.remove()));
                progress.step(done + 1, missing.size());
                if (writer.lineBytes() >= FILE_BYTES || writer.held() >= FILE_HELD) {
                    sink.file(writer.finish());
                    writer.close();
                    writer = open();
                }
            }
            if (writer.commits() > 0) {
                sink.file(writer.finish());
            }
        } finally {
            running.forEach(future -> future.cancel(false));
            writer.close();
        }
    }

    private static CommitChanges read(BlockingQueue<Reader> readers, ObjectId id)
            throws IOException, InterruptedException {
        Reader reader = readers.take();
        try {
            return CommitChanges.of(reader.source, reader.blobs, id);
        } finally {
            readers.add(reader);
        }
    }

    private static CommitChanges get(Future<CommitChanges> future) throws IOException {
        try {
            return future.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        } catch (ExecutionException e) {
            if (e.getCause() instanceof IOException failure) {
                throw failure;
            }
            throw new IllegalStateException(e.getCause());
        }
    }

    private HistoryWriter open() throws IOException {
        return new HistoryWriter(newFile(files));
    }

    /** A name that no other file has. */
    public static Path newFile(NewFiles files) {
        return files.next("history");
    }
}
