package dev.oddbeacon.bench;

import dev.oddbeacon.api.ServiceStatus;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;

/** What the process of a service holds over time. */
final class Held {
    /** What it holds at one time. */
    record Sample(
            double minute,
            double heapMegabytes,
            double residentMegabytes,
            double indexMegabytes,
            long maps,
            long handles,
            long threads,
            int segments) {}

    private final List<Sample> samples = new ArrayList<>();

    void take(Running service, double minute) throws IOException, InterruptedException {
        ServiceStatus status = service.status();
        Path process = Path.of("/proc/" + service.pid());
        try (Stream<String> lines = Files.lines(process.resolve("maps"));
                Stream<Path> open = Files.list(process.resolve("fd"));
                Stream<Path> threads = Files.list(process.resolve("task"))) {
            samples.add(new Sample(
                    minute,
                    status.heapBytes() / 1e6,
                    service.residentBytes() / 1e6,
                    status.indexBytes() / 1e6,
                    lines.count(),
                    open.count(),
                    threads.count(),
                    status.segments()));
        }
    }

    Sample last() {
        return samples.getLast();
    }

    /** The median of a figure between two times. */
    double median(double fromMinute, double toMinute, ToDoubleFunction<Sample> figure) {
        double[] values = samples.stream()
                .filter(sample -> sample.minute >= fromMinute && sample.minute <= toMinute)
                .mapToDouble(figure)
                .sorted()
                .toArray();
        return values.length == 0 ? Double.NaN : values[values.length / 2];
    }

    void draw(String title, Path file) throws IOException {
        Plot plot = new Plot(title, "minutes", "MB; or so many");
        add(plot, "heap, MB", Sample::heapMegabytes);
        add(plot, "resident, MB", Sample::residentMegabytes);
        add(plot, "mappings", Sample::maps);
        add(plot, "handles", Sample::handles);
        add(plot, "segments", Sample::segments);
        plot.save(file);
    }

    private void add(Plot plot, String name, ToDoubleFunction<Sample> figure) {
        plot.curve(
                name,
                samples.stream().mapToDouble(Sample::minute).toArray(),
                samples.stream().mapToDouble(figure).toArray(),
                false);
    }
}
