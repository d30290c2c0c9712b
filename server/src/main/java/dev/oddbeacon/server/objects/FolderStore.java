package dev.oddbeacon.server.objects;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;

/** A folder that all machines reach, on a file system of the network. */
final class FolderStore implements ObjectStore {
    private static final String UNFINISHED = ".unfinished-";

    private final Path folder;

    /** @throws IOException if the folder cannot be used; it is not made: where nothing is mounted, nothing must be written */
    FolderStore(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) {
            throw new NotDirectoryException(folder.toString());
        }
        this.folder = folder;
    }

    @Override
    public String place() {
        return folder.toString();
    }

    @Override
    public void put(Path file) throws IOException {
        Path target = folder.resolve(file.getFileName());
        if (Files.exists(target)) {
            return;
        }
        Path unfinished = folder.resolve(UNFINISHED + UUID.randomUUID());
        try {
            Files.copy(file, unfinished);
            try (FileChannel channel = FileChannel.open(unfinished, StandardOpenOption.WRITE)) {
                channel.force(true);
            }
            Files.move(unfinished, target, StandardCopyOption.ATOMIC_MOVE);
        } finally {
            Files.deleteIfExists(unfinished);
        }
    }

    @Override
    public void fetch(String name, Path file) throws IOException {
        checkFolder();
        Files.copy(folder.resolve(name), file, StandardCopyOption.REPLACE_EXISTING);
    }

    /** Where the file system is not mounted, every object would seem to be gone. */
    private void checkFolder() throws IOException {
        if (!Files.isDirectory(folder)) {
            throw new NotDirectoryException(folder.toString());
        }
    }

    @Override
    public List<Stored> list() throws IOException {
        checkFolder();
        List<Stored> all = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder)) {
            for (Path file : files.toList()) {
                String name = file.getFileName().toString();
                if (!name.startsWith(UNFINISHED)) {
                    try {
                        all.add(new Stored(name, Files.size(file)));
                    } catch (NoSuchFileException e) {
                        // another machine has deleted it just now
                    }
                }
            }
        }
        return all;
    }

    @Override
    public void delete(String name) throws IOException {
        Files.deleteIfExists(folder.resolve(name));
    }
}
