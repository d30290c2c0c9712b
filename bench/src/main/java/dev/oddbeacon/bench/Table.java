package dev.oddbeacon.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** The measurements: each target, the figure, the reference of the same run, and whether it was met. */
final class Table {
    private record Row(String what, String figure, String target, String met) {}

    private final List<Row> rows = new ArrayList<>();

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

    /** A table in Markdown, rows with a target first. */
    void print() {
        System.out.println("\n| what | figure | target | |\n|---|---|---|---|");
        rows.stream().filter(row -> !row.target.isEmpty()).map(Table::line).forEach(System.out::println);
        System.out.println("\n| what | figure | | |\n|---|---|---|---|");
        rows.stream().filter(row -> row.target.isEmpty()).map(Table::line).forEach(System.out::println);
    }
}
