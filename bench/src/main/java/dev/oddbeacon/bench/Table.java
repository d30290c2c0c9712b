package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * The measurements: each target, the figure, the reference of the same run, and whether it was met; and what is drawn of
 * them.
 */
final class Table {
    private record Row(String what, String figure, String target, String met) {}

    private record Bars(String title, String what, List<String> names, List<Double> values) {}

    private final List<Row> rows = new ArrayList<>();
    private final Map<String, Figures> waited = new LinkedHashMap<>();
    private final List<Bars> bars = new ArrayList<>();

    /** A figure that has a target. */
    void target(String what, String target, boolean met, String format, Object... values) {
        add(new Row(what, text(format, values), target, met ? "met" : "missed"));
    }

    /** A figure without one. */
    void note(String what, String format, Object... values) {
        add(new Row(what, text(format, values), "", ""));
    }

    private void add(Row row) {
        rows.add(row);
        System.out.println(line(row));
    }

    private static String text(String format, Object... values) {
        return String.format(Locale.ROOT, format, values);
    }

    private static String line(Row row) {
        return "| " + row.what.replace("|", "\\|") + " | " + row.figure + " | " + row.target + " | " + row.met + " |";
    }

    /** How long something took, each time, in milliseconds; all such go into one plot. */
    void waited(String what, Figures millis) {
        waited.put(what, millis);
    }

    /** How many times as fast one thing was as another, for each of some names; a plot of its own. */
    void compared(String title, String what, List<String> names, List<Double> times) {
        bars.add(new Bars(title, what, names, times));
    }

    /** A table in Markdown, rows with a target first; and the plots. @param folder where they go */
    void print(Path folder) throws IOException {
        System.out.println("\n| what | figure | target | |\n|---|---|---|---|");
        rows.stream().filter(row -> !row.target.isEmpty()).map(Table::line).forEach(System.out::println);
        System.out.println("\n| what | figure | | |\n|---|---|---|---|");
        rows.stream().filter(row -> row.target.isEmpty()).map(Table::line).forEach(System.out::println);
        if (!waited.isEmpty()) {
            Plot plot =
                    new Plot("How long it takes", "milliseconds", "per cent that took no longer").powersOfTen(1, 1_000);
            waited.forEach((what, millis) -> plot.curve(
                    what,
                    IntStream.rangeClosed(0, 100)
                            .mapToDouble(share -> Math.clamp(millis.at(share / 100.0), 1, 1_000))
                            .toArray(),
                    IntStream.rangeClosed(0, 100).asDoubleStream().toArray(),
                    false));
            plot.save(folder.resolve("waiting.png"));
        }
        for (int i = 0; i < bars.size(); i++) {
            Bars some = bars.get(i);
            Plot.bars(some.title, some.what, some.names, some.values, folder.resolve("compared-" + (i + 1) + ".png"));
        }
    }
}
