package dev.oddbeacon.server.load;

import java.io.IOException;
import java.io.OutputStream;
import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/**
 * Downloads in pieces, each of which is made by {@link LongReads} and held in memory until it is written; all of them
 * together hold a bounded amount. What a caller takes longer for than ten minutes is broken off.
 */
@Component
public class Downloads {
    private static final int ALL_MEGABYTES = 96;
    private static final Duration WAIT = Duration.ofSeconds(5);
    private static final Duration LONGEST = Duration.ofMinutes(10);

    private final LongReads reads;
    private final Semaphore megabytes = new Semaphore(ALL_MEGABYTES);

    Downloads(LongReads reads) {
        this.reads = reads;
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

    /** The body of an answer that is written in pieces. */
    public StreamingResponseBody body(Content content) {
        return out -> {
            long end = System.nanoTime() + LONGEST.toNanos();
            content.writeTo(piece -> write(piece, out, end));
        };
    }

    private void write(Piece piece, OutputStream out, long end) throws IOException {
        int wanted = (int) Math.min(ALL_MEGABYTES, 1 + (piece.bytes >> 20));
        try {
            if (System.nanoTime() > end || !megabytes.tryAcquire(wanted, WAIT.toMillis(), TimeUnit.MILLISECONDS)) {
                throw new IOException("the download took too long, or too many are under way");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
        try {
            byte[] bytes = reads.call(piece.content);
            for (int at = 0; at < bytes.length && System.nanoTime() < end; at += 1 << 16) {
                out.write(bytes, at, Math.min(1 << 16, bytes.length - at));
            }
        } catch (IOException | RuntimeException e) {
            throw e;
        } catch (Exception e) {
            throw new IOException(e);
        } finally {
            megabytes.release(wanted);
        }
    }
}
