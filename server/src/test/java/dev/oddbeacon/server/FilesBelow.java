package dev.oddbeacon.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;

/** Files below a folder, while the service may be writing and deleting there. */
public final class FilesBelow {
    private FilesBelow() {}

    /** Those that hold a text as it is; what goes meanwhile holds nothing. */
    public static List<Path> holding(Path folder, String text) {
        List<Path> found = new ArrayList<>();
        try {
            Files.walkFileTree(folder, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                    try {
                        if (attributes.isRegularFile()
                                && Files.readString(file, StandardCharsets.ISO_8859_1)
                                        .contains(text)) {
                            found.add(file);
                        }
                    } catch (NoSuchFileException e) {
                        // it went meanwhile
                    }
                    return FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFileFailed(Path file, IOException e) throws IOException {
                    if (e instanceof NoSuchFileException) {
                        return FileVisitResult.CONTINUE;
                    }
                    throw e;
                }
            });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return found;
    }
}
