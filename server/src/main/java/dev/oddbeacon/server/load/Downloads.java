package dev.oddbeacon.server.load;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.web.BusyException;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/**
 * What is written in pieces: files as they are, archives, patches. A piece is made on the threads for long reads; there
 * is room in memory for a few of them at a time. A large one is put into a file until its caller has taken it, so that
 * slow callers keep no memory, and nobody else waiting.
 */
@Component
public class Downloads {
    private static final int ALL_MEGABYTES = 96;
    private static final int ALL_MEGABYTES_ON_DISK = 2_048;
    private static final int LARGE = 256 << 10;
    private static final Duration WAIT = Duration.ofSeconds(5);
    private static final Duration LONGEST = Duration.ofMinutes(10);

    private final LongReads reads;
    private final Semaphore megabytes = new Semaphore(ALL_MEGABYTES);

    private final Semaphore megabytesOnDisk = new Semaphore(ALL_MEGABYTES_ON_DISK);
    private final Path folder;

    Downloads(LongReads reads, Settings settings) throws IOException {
        this.reads = reads;
        this.folder = Files.createDirectories(settings.data().resolve("downloads"));
        try (DirectoryStream<Path> left = Files.newDirectoryStream(folder)) {
            for (Path file : left) { // of a process that was killed
                Files.delete(file);
            }
        }
    }

    /** One piece of a download. @param bytes about how many it holds in memory */
    public record Piece(long bytes, Callable<byte[]> content) {}

    /** Writes pieces one after the other. */
    public interface Writer {
        void write(Piece piece) throws IOException;
    }

    /** What a download does with its writer. */
    public interface Content {
        void writeTo(Writer writer) throws IOException;
    }

    /**
     * The body of an answer that is written in pieces. It fails with a {@link BusyException} if nothing of it was
     * written yet and too many others are under way.
     */
    public StreamingResponseBody body(Content content) {
        return out -> {
            Download download = new Download(out, System.nanoTime() + LONGEST.toNanos());
            content.writeTo(download::write);
        };
    }

    /** One download. */
    private final class Download {
        private final OutputStream out;
        private final long end; // System.nanoTime()
        private boolean begun;

        Download(OutputStream out, long end) {
            this.out = out;
            this.end = end;
        }

        void write(Piece piece) throws IOException {
            int megabyteCount = (int) Math.min(ALL_MEGABYTES, 1 + (piece.bytes >> 20));
            acquire(megabytes, megabyteCount);
            boolean inMemory = true;
            try {
                byte[] bytes = made(piece);
                if (bytes.length <= LARGE) {
                    copy(new ByteArrayInputStream(bytes));
                    return;
                }
                int onDisk = 1 + (bytes.length >> 20);
                acquire(megabytesOnDisk, onDisk);
                try (InputStream file = spooled(bytes)) {
                    bytes = null; // or it would stay in memory all the same
                    megabytes.release(megabyteCount);
                    inMemory = false;
                    copy(file);
                } finally {
                    megabytesOnDisk.release(onDisk);
                }
            } finally {
                if (inMemory) {
                    megabytes.release(megabyteCount);
                }
            }
        }

        private void acquire(Semaphore semaphore, int permits) throws IOException {
            try {
                if (System.nanoTime() < end && semaphore.tryAcquire(permits, WAIT.toMillis(), TimeUnit.MILLISECONDS)) {
                    return;
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException(e);
            }
            if (!begun) {
                throw new BusyException("Too many downloads are under way. Try again in a moment.");
            }
            throw new IOException("the download took too long, or too many are under way");
        }

        private void copy(InputStream in) throws IOException {
            byte[] buffer = new byte[1 << 16];
            for (int length = in.read(buffer); length > 0; length = in.read(buffer)) {
                if (System.nanoTime() > end) {
                    throw new IOException("the download took too long");
                }
                begun = true;
                out.write(buffer, 0, length);
            }
        }
    }

    private byte[] made(Piece piece) throws IOException {
        try {
            return reads.call(piece.content);
        } catch (IOException | RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new IOException(e);
        }
    }

    /** Bytes in a file that is gone as soon as it is closed. */
    private InputStream spooled(byte[] bytes) throws IOException {
        Path file = Files.createTempFile(folder, "piece", "");
        try {
            Files.write(file, bytes);
            return Files.newInputStream(file, StandardOpenOption.DELETE_ON_CLOSE);
        } catch (IOException e) {
            Files.deleteIfExists(file);
            throw e;
        }
    }
}
