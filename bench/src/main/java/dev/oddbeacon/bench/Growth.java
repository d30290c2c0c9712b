package dev.oddbeacon.bench;

import dev.oddbeacon.api.ServiceStatus;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;

/**
 * Runs the same searches over a tenth, three tenths and all of the source, and over more than that; reports a table and
 * a plot.
 */
final class Growth {
    private static final List<Double> SHARES = List.of(0.1, 0.3);
    private static final int COUNTED = 100;

    private record Point(double share, double page, double slowPage, double count) {}

    private Growth() {}

    /**
     * @param service has all of the source
     * @param more a folder of repositories, which are added to the source
     */
    static void measure(Running service, Path launcher, Path source, Optional<Path> more, Path folder, Table table)
            throws IOException, InterruptedException {
        List<Point> points = new ArrayList<>();
        Generated generated = new Generated(source);
        for (double share : SHARES) {
            Path part = generated.repository(
                    folder.resolve("part-" + share), generated.spread((int) (share * generated.count())));
            try (Running small = Running.start(launcher, folder.resolve("service-" + share))) {
                small.add(Indexing.NAME, part);
                small.awaitReady(Indexing.NAME);
                points.add(point(small, source, share, table));
            }
        }
        points.add(point(service, source, 1, table));
        if (more.isPresent()) {
            points.add(withMore(launcher, source, more.get(), service.status().bytes(), folder, table));
        }
        Plot plot = new Plot("The same searches as the index grows", "times the source", "milliseconds")
                .powersOfTen(0.1, more.isPresent() ? 10 : 1);
        curve(plot, points, "a page, 95th percentile", Point::slowPage);
        curve(plot, points, "a page, median", Point::page);
        curve(plot, points, "every line counted, median", Point::count);
        plot.save(folder.resolve("growth.png"));
    }

    private static Point withMore(Path launcher, Path source, Path more, long sourceBytes, Path folder, Table table)
            throws IOException, InterruptedException {
        try (Running large = Running.start(launcher, folder.resolve("service-more"));
                Stream<Path> repositories = Files.list(more)) {
            long start = System.nanoTime();
            large.add(Indexing.NAME, source);
            for (Path repository : repositories.sorted().toList()) {
                large.add(repository.getFileName().toString(), repository);
            }
            large.awaitAllReady();
            ServiceStatus status = large.status();
            table.note(
                    "the source and more",
                    "%,d files in %d repositories, %.1f GB, searchable after %.0f s; index %.1f GB",
                    status.files(),
                    status.repositories(),
                    status.bytes() / 1e9,
                    (System.nanoTime() - start) / 1e9,
                    status.indexBytes() / 1e9);
            Point point = point(large, source, (double) status.bytes() / sourceBytes, table);
            table.note(
                    "memory of the service with it",
                    "heap %.0f MB in use; resident without mapped files %.0f MB",
                    large.status().heapBytes() / 1e6,
                    large.residentBytes() / 1e6);
            return point;
        }
    }

    private static Point point(Running service, Path source, double share, Table table)
            throws IOException, InterruptedException {
        Workload workload = new Workload(service, source, "");
        workload.pass();
        workload.pass();
        Figures page = workload.pass();
        Figures counts = new Figures();
        for (String text : new Words(source).texts(COUNTED)) {
            counts.add(Counting.counted(service, text, "plain", ""));
        }
        table.note(
                String.format(Locale.ROOT, "at %.1f of the source", share),
                "page: median %.1f ms, 95 %% under %.1f ms; all lines counted: median %.1f ms, 95 %% under %.1f ms",
                page.at(0.5),
                page.at(0.95),
                counts.at(0.5),
                counts.at(0.95));
        return new Point(share, page.at(0.5), page.at(0.95), counts.at(0.5));
    }

    private static void curve(Plot plot, List<Point> points, String name, ToDoubleFunction<Point> figure) {
        plot.curve(
                name,
                points.stream().mapToDouble(Point::share).toArray(),
                points.stream().mapToDouble(figure).toArray(),
                true);
    }
}
