package dev.oddbeacon.bench;

import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.ServiceStatus;
import java.io.IOException;
import java.nio.file.Path;

/** Measures the time, memory and disk that indexing takes. */
final class Indexing {
    static final String NAME = "corpus";
    static final String SCOPE = "&repo=" + NAME;
    private static final int POLL_MILLIS = 50;
    private static final int REFERENCES = 3;

    private Indexing() {}

    /** @param copy a folder for a copy of the source's repository; not there yet */
    static void measure(Running service, Path source, Path copy, Table table) throws IOException, InterruptedException {
        double processorBefore = service.processorSeconds();
        long start = System.nanoTime();
        service.add(NAME, source);
        long indexing = 0;
        RepositoryInfo info = service.repository(NAME);
        while (!info.state().equals("ready")) {
            if (info.state().equals("failed")) {
                throw new IOException(info.problem());
            }
            if (indexing == 0
                    && info.progress() != null
                    && info.progress().phase().equals("indexing")) {
                indexing = System.nanoTime();
            }
            Thread.sleep(POLL_MILLIS);
            info = service.repository(NAME);
        }
        double whole = (System.nanoTime() - start) / 1e9;
        double processor = service.processorSeconds() - processorBefore;
        double fetch = (indexing - start) / 1e9;
        Figures archives = new Figures();
        for (int i = 0; i < REFERENCES; i++) {
            archives.add(Command.seconds(source, "git", "archive", "HEAD"));
        }
        double archive = archives.at(0.5);
        ServiceStatus status = service.status();
        table.note("files, bytes of source", "%,d, %.2f GB", status.files(), status.bytes() / 1e9);
        table.target(
                "a repository registered until it is searchable, fetch included",
                "5 times git archive HEAD",
                whole / archive <= 5,
                "%.1f times (%.1f s to %.1f s, the median of %.1f to %.1f)",
                whole / archive,
                whole,
                archive,
                archives.at(0),
                archives.at(1));
        table.target(
                "processor seconds of that",
                "30 a gigabyte",
                processor / (status.bytes() / 1e9) <= 30,
                "%.0f a gigabyte (%.0f s)",
                processor / (status.bytes() / 1e9),
                processor);
        double clone = Command.seconds(source, "git", "clone", "-q", "--mirror", "file://" + source, copy.toString());
        Command.run(source, "rm", "-rf", copy.toString());
        double plainCopy =
                Command.seconds(source, "git", "clone", "-q", "--mirror", "--no-hardlinks", ".", copy.toString());
        Command.run(source, "rm", "-rf", copy.toString());
        table.target(
                "of it the fetch",
                "as git clone --mirror --no-hardlinks",
                fetch <= plainCopy,
                "%.1f s; git clone --mirror over file:// %.1f s, with --no-hardlinks %.1f s",
                fetch,
                clone,
                plainCopy);
        double share = (double) status.indexBytes() / status.bytes();
        table.target(
                "index on disk, content included",
                "0.7 of the source",
                share <= 0.7,
                "%.2f of the source (%.2f GB)",
                share,
                status.indexBytes() / 1e9);
    }

    static void memory(Running service, Table table) throws IOException, InterruptedException {
        double heap = service.status().heapBytes() / 1e6;
        table.target(
                "heap of the service after all that",
                "256 MB",
                heap <= 256,
                "%.0f MB in use; resident without mapped files %.0f MB",
                heap,
                service.residentBytes() / 1e6);
    }
}
