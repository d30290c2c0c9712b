package dev.oddbeacon.bench;

import java.awt.Color;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.knowm.xchart.BitmapEncoder;
import org.knowm.xchart.CategoryChart;
import org.knowm.xchart.CategoryChartBuilder;
import org.knowm.xchart.XYChart;
import org.knowm.xchart.XYChartBuilder;
import org.knowm.xchart.internal.chartpart.Chart;
import org.knowm.xchart.style.AxesChartStyler;
import org.knowm.xchart.style.Styler;
import org.knowm.xchart.style.markers.SeriesMarkers;

/** A plot; all of ours look the same. */
final class Plot {
    private static final int WIDTH = 900;
    private static final int HEIGHT = 520;

    private final XYChart chart;

    Plot(String title, String horizontal, String vertical) {
        chart = new XYChartBuilder()
                .width(WIDTH)
                .height(HEIGHT)
                .title(title)
                .xAxisTitle(horizontal)
                .yAxisTitle(vertical)
                .build();
        style(chart.getStyler());
    }

    private static void style(AxesChartStyler styler) {
        styler.setYAxisMin(0.0);
        styler.setLegendPosition(Styler.LegendPosition.OutsideS)
                .setLegendLayout(Styler.LegendLayout.Horizontal)
                .setLegendBorderColor(Color.WHITE)
                .setChartBackgroundColor(Color.WHITE);
    }

    /** From a power of ten to another one, each as wide as the next. */
    Plot powersOfTen(double from, double until) {
        chart.getStyler().setXAxisLogarithmic(true).setXAxisMin(from).setXAxisMax(until);
        return this;
    }

    /** @param isMarked whether each point is seen, because there are few */
    void curve(String name, double[] across, double[] up, boolean isMarked) {
        chart.addSeries(name, across, up).setMarker(isMarked ? SeriesMarkers.CIRCLE : SeriesMarkers.NONE);
    }

    void save(Path file) throws IOException {
        save(chart, file);
    }

    /** A bar for each name. */
    static void bars(String title, String vertical, List<String> names, List<Double> values, Path file)
            throws IOException {
        CategoryChart chart = new CategoryChartBuilder()
                .width(WIDTH)
                .height(HEIGHT)
                .title(title)
                .yAxisTitle(vertical)
                .build();
        style(chart.getStyler());
        chart.getStyler().setXAxisLabelRotation(60).setLegendVisible(false);
        chart.addSeries(vertical, names, values);
        save(chart, file);
    }

    private static void save(Chart<?, ?> chart, Path file) throws IOException {
        BitmapEncoder.saveBitmap(chart, file.toString(), BitmapEncoder.BitmapFormat.PNG);
        System.out.println("Drawn: " + file);
    }
}
