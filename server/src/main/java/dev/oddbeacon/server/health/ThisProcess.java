package dev.oddbeacon.server.health;

import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.stream.Stream;

/** What the operating system and the virtual machine tell of this process. Linux tells it in files of /proc. */
final class ThisProcess {
    private static final Path SELF = Path.of("/proc/self");

    private ThisProcess() {}

    static Reading.OfProcess now() {
        return new Reading.OfProcess(
                number(SELF.resolve("status"), "RssAnon:").orElse(0L) << 10,
                (int) lines(SELF.resolve("maps")),
                (int) files(SELF.resolve("fd")),
                ManagementFactory.getThreadMXBean().getThreadCount());
    }

    /** How many mappings a process may have; empty where that is not known. */
    static Optional<Long> mostMappings() {
        return number(Path.of("/proc/sys/vm/max_map_count"), "");
    }

    /** How many handles this process may have; empty where that is not known. */
    static Optional<Long> mostHandles() {
        return number(SELF.resolve("limits"), "Max open files");
    }

    /** Heap that was in use after the last collections: what cannot be given back. */
    static long heapAfterCollection() {
        long used = 0;
        for (MemoryPoolMXBean pool : ManagementFactory.getMemoryPoolMXBeans()) {
            if (pool.getType() == MemoryType.HEAP && pool.getCollectionUsage() != null) {
                used += pool.getCollectionUsage().getUsed();
            }
        }
        return used;
    }

    /**
     * The first number of the first line that begins so. Such files are read in one piece: some of them have nothing more
     * to tell after a few bytes were read.
     */
    private static Optional<Long> number(Path file, String start) {
        try (Stream<String> lines = Files.lines(file)) {
            return lines.filter(line -> line.startsWith(start))
                    .map(line -> line.substring(start.length()).strip())
                    .map(rest -> rest.contains(" ") ? rest.substring(0, rest.indexOf(' ')) : rest)
                    .findFirst()
                    .map(Long::parseLong);
        } catch (IOException | NumberFormatException e) {
            return Optional.empty();
        }
    }

    private static long lines(Path file) {
        try (Stream<String> lines = Files.lines(file)) {
            return lines.count();
        } catch (IOException e) {
            return 0;
        }
    }

    private static long files(Path folder) {
        try (Stream<Path> files = Files.list(folder)) {
            return files.count();
        } catch (IOException e) {
            return 0;
        }
    }
}
