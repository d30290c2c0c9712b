package dev.oddbeacon.client.output;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a result is told by in a record of CSV, as RFC 4180 has it: the columns of an answer, each with its name and how
 * its value is taken from a result. Control characters are made harmless as on a terminal, so that a record is one
 * line; a text that a spreadsheet would take for a formula gets an apostrophe before it.
 */
public final class Columns<T> {
    private record Column<T>(String name, Function<T, ?> value) {}

    private final List<Column<T>> columns = new ArrayList<>();

    /** Adds a column. @param value null stands for an empty field */
    public Columns<T> add(String name, Function<T, ?> value) {
        columns.add(new Column<>(name, value));
        return this;
    }

    /** The record that names the fields. */
    public String header() {
        return record(columns.stream().map(Column::name));
    }

    public String record(T result) {
        return record(columns.stream().map(column -> column.value.apply(result)).map(value -> switch (value) {
            case null -> "";
            case Number number -> number.toString();
            default -> harmless(value.toString());
        }));
    }

    private static String record(Stream<String> fields) {
        return fields.map(Terminal::clean).map(Columns::field).collect(Collectors.joining(","));
    }

    private static String harmless(String text) {
        int first = 0;
        while (first < text.length() && text.charAt(first) == '\t') {
            first++;
        }
        return first < text.length() && "=+-@".indexOf(text.charAt(first)) >= 0 ? "'" + text : text;
    }

    private static String field(String text) {
        boolean isQuoted =
                text.indexOf(',') >= 0 || text.indexOf('"') >= 0 || text.startsWith(" ") || text.endsWith(" ");
        return isQuoted ? '"' + text.replace("\"", "\"\"") + '"' : text;
    }
}
