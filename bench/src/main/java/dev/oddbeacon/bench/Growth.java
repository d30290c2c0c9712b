package dev.oddbeacon.bench;

import java.awt.Color;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.knowm.xchart.BitmapEncoder;
import org.knowm.xchart.XYChart;
import org.knowm.xchart.XYChartBuilder;
import org.knowm.xchart.style.Styler;
import org.knowm.xchart.style.markers.SeriesMarkers;

/** Runs the same searches over a tenth, three tenths and all of the source; reports a table and a plot. */
final class Growth {
    private static final List<Double> SHARES = List.of(0.1, 0.3);
    private static final int COUNTED = 100;

    private record Point(double share, double page, double slowPage, double count) {}

    private Growth() {}

    /** @param service has all of the source */
    static void measure(Running service, Path launcher, Path source, Path folder, Table table)
            throws IOException, InterruptedException {
        List<Point> points = new ArrayList<>();
        Generated generated = new Generated(source);
        for (double share : SHARES) {
            Path part = generated.repository(
                    folder.resolve("part-" + share), generated.spread((int) (share * generated.count())));
            try (Running small = Running.start(launcher, folder.resolve("service-" + share))) {
                small.add(Indexing.NAME, part);
                small.awaitReady(Indexing.NAME);
                points.add(point(small, source, share));
            }
        }
        points.add(point(service, source, 1));
        for (Point point : points) {
            table.note(
                    String.format(java.util.Locale.ROOT, "at %.1f of the source", point.share),
                    "page: median %.1f ms, 95 %% under %.1f ms; all lines counted: median %.1f ms",
                    point.page,
                    point.slowPage,
                    point.count);
        }
        draw(points, folder.resolve("growth.png"));
    }

    private static Point point(Running service, Path source, double share) throws IOException, InterruptedException {
        Workload workload = new Workload(service, source);
        workload.pass();
        workload.pass();
        Figures page = workload.pass();
        Figures counts = new Figures();
        for (String text : new Words(source).texts(COUNTED)) {
            counts.add(Counting.counted(service, text, "plain"));
        }
        return new Point(share, page.at(0.5), page.at(0.95), counts.at(0.5));
    }

    private static void draw(List<Point> points, Path file) throws IOException {
        XYChart chart = new XYChartBuilder()
                .width(900)
                .height(520)
                .title("The same searches as the index grows")
                .xAxisTitle("share of the source")
                .yAxisTitle("milliseconds")
                .build();
        chart.getStyler()
                .setYAxisMin(0.0)
                .setXAxisMin(0.0)
                .setXAxisMax(1.0)
                .setLegendPosition(Styler.LegendPosition.OutsideS)
                .setLegendLayout(Styler.LegendLayout.Horizontal)
                .setLegendBorderColor(Color.WHITE)
                .setChartBackgroundColor(Color.WHITE);
        double[] shares = points.stream().mapToDouble(Point::share).toArray();
        chart.addSeries(
                        "a page, 95th percentile",
                        shares,
                        points.stream().mapToDouble(Point::slowPage).toArray())
                .setMarker(SeriesMarkers.CIRCLE);
        chart.addSeries(
                        "a page, median",
                        shares,
                        points.stream().mapToDouble(Point::page).toArray())
                .setMarker(SeriesMarkers.CIRCLE);
        chart.addSeries(
                        "every line counted, median",
                        shares,
                        points.stream().mapToDouble(Point::count).toArray())
                .setMarker(SeriesMarkers.CIRCLE);
        BitmapEncoder.saveBitmap(chart, file.toString(), BitmapEncoder.BitmapFormat.PNG);
        System.out.println("Drawn: " + file);
    }
}
