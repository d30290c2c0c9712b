package dev.oddbeacon.bench;

import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.ServiceStatus;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;

/** Measures the time, memory and disk that indexing takes. */
final class Indexing {
    static final String NAME = "corpus";
    private static final int POLL_MILLIS = 50;
    private static final int REFERENCES = 3;

    private Indexing() {}

    static void measure(Running service, Path source, Table table) throws IOException, InterruptedException {
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
        if (indexing == 0) {
            table.note("index", "of an earlier run");
            return;
        }
        double fetch = (indexing - start) / 1e9;
        double index = (System.nanoTime() - indexing) / 1e9;
        double[] references = new double[REFERENCES];
        for (int i = 0; i < REFERENCES; i++) {
            references[i] = Command.seconds(source, "git", "archive", "HEAD");
        }
        Arrays.sort(references);
        double reference = references[REFERENCES / 2];
        ServiceStatus status = service.status();
        table.note("files, bytes of source", "%,d, %.2f GB", status.files(), status.bytes() / 1e9);
        table.note("fetch", "%.1f s", fetch);
        table.target(
                "index, fetch excluded",
                "3 times git archive HEAD",
                index / reference <= 3,
                "%.1f times (%.1f s to %.1f s, the median of %.1f to %.1f)",
                index / reference,
                index,
                reference,
                references[0],
                references[REFERENCES - 1]);
        double share = (double) status.indexBytes() / status.bytes();
        table.target(
                "index on disk, content included",
                "1.4 of the source",
                share <= 1.4,
                "%.2f of the source (%.2f GB)",
                share,
                status.indexBytes() / 1e9);
    }

    static void memory(Running service, Table table) throws IOException, InterruptedException {
        double heap = service.status().heapBytes() / 1e6;
        table.target(
                "heap of the service after all that",
                "512 MB",
                heap <= 512,
                "%.0f MB in use; resident without mapped files %.0f MB",
                heap,
                service.residentBytes() / 1e6);
    }
}
