package dev.oddbeacon.bench;

import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.ServiceStatus;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;

/** How long indexing takes and what it costs. */
final class Indexing {
    static final String NAME = "corpus";
    private static final int POLL_MILLIS = 50;

    private Indexing() {}

    static void measure(Running service, Path source, List<String> table) throws IOException, InterruptedException {
        long start = System.nanoTime();
        service.add(NAME, source);
        long indexing = 0;
        RepositoryInfo info = service.repository(NAME);
        while (!info.state().equals("ready")) {
            if (info.state().equals("failed")) {
                throw new IOException(info.problem());
            }
            if (indexing == 0 && info.progress() != null && info.progress().phase().equals("indexing")) {
                indexing = System.nanoTime();
            }
            Thread.sleep(POLL_MILLIS);
            info = service.repository(NAME);
        }
        double fetch = ((indexing == 0 ? System.nanoTime() : indexing) - start) / 1e9;
        double index = indexing == 0 ? 0 : (System.nanoTime() - indexing) / 1e9;
        double reference = Command.seconds(source, "git", "archive", "HEAD");
        ServiceStatus status = service.status();
        row(table, "files, bytes of source", "%,d, %.2f GB", status.files(), status.bytes() / 1e9);
        row(table, "fetch", "%.1f s", fetch);
        row(table, "index", "%.1f s; git archive %.1f s; ratio %.1f", index, reference, index / reference);
        row(table, "index on disk", "%.2f GB, %.2f of the source", status.indexBytes() / 1e9, (double) status.indexBytes() / status.bytes());
    }

    static void memory(Running service, List<String> table) throws IOException, InterruptedException {
        row(table, "memory after the searches", "heap %.0f MB, resident without mapped files %.0f MB", service.status().heapBytes() / 1e6, service.residentBytes() / 1e6);
    }

    static void row(List<String> table, String what, String format, Object... values) {
        String row = String.format(Locale.ROOT, "%-28s %s", what, String.format(Locale.ROOT, format, values));
        System.out.println(row);
        table.add(row);
    }
}
