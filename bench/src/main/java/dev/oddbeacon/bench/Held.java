package dev.oddbeacon.bench;

import dev.oddbeacon.api.ServiceStatus;
import java.awt.Color;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;
import org.knowm.xchart.BitmapEncoder;
import org.knowm.xchart.XYChart;
import org.knowm.xchart.XYChartBuilder;
import org.knowm.xchart.style.Styler;
import org.knowm.xchart.style.markers.SeriesMarkers;

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
        XYChart chart = new XYChartBuilder()
                .width(900)
                .height(520)
                .title(title)
                .xAxisTitle("minutes")
                .yAxisTitle("MB; or so many")
                .build();
        chart.getStyler()
                .setYAxisMin(0.0)
                .setLegendPosition(Styler.LegendPosition.OutsideS)
                .setLegendLayout(Styler.LegendLayout.Horizontal)
                .setLegendBorderColor(Color.WHITE)
                .setChartBackgroundColor(Color.WHITE);
        add(chart, "heap, MB", Sample::heapMegabytes);
        add(chart, "resident, MB", Sample::residentMegabytes);
        add(chart, "mappings", Sample::maps);
        add(chart, "handles", Sample::handles);
        add(chart, "segments", Sample::segments);
        BitmapEncoder.saveBitmap(chart, file.toString(), BitmapEncoder.BitmapFormat.PNG);
        System.out.println("Drawn: " + file);
    }

    private void add(XYChart chart, String name, ToDoubleFunction<Sample> figure) {
        chart.addSeries(
                        name,
                        samples.stream().mapToDouble(Sample::minute).toArray(),
                        samples.stream().mapToDouble(figure).toArray())
                .setMarker(SeriesMarkers.NONE);
    }
}
