package dev.oddbeacon.git;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.util.Comparator;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;

/** The folder of a mirror, as files. */
public final class MirrorFolder {
    private static final int TRIES = 50;
    private static final Duration PAUSE = Duration.ofMillis(100);

    private MirrorFolder() {}

    /** What the objects of a mirror take, in bytes. */
    public static long bytes(Path folder) {
        long[] bytes = {0};
        try {
            Files.walkFileTree(folder.resolve("objects"), new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                    bytes[0] += attributes.size();
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFileFailed(Path file, IOException e) {
                    return FileVisitResult.CONTINUE; // it went meanwhile
                }
            });
        } catch (IOException e) {
            return 0;
        }
        return bytes[0];
    }

    /**
     * Removes the mirror. A process of Git that was ended may have children that write for a moment longer: what they
     * leave is removed as well, within seconds.
     */
    public static void delete(Path folder) throws IOException {
        for (int left = TRIES; Files.exists(folder); left--) {
            try (Stream<Path> files = Files.walk(folder)) {
                for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
                    Files.deleteIfExists(file);
                }
            } catch (DirectoryNotEmptyException | NoSuchFileException e) {
                pause(left, e);
            } catch (UncheckedIOException e) {
                pause(left, e.getCause());
            }
        }
    }

    private static void pause(int left, IOException e) throws IOException {
        if (left == 0) {
            throw e;
        }
        LockSupport.parkNanos(PAUSE.toNanos());
    }
}
