package dev.oddbeacon.client.options;

import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.ResultFormat;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.Terminal;
import java.util.function.BiConsumer;
import java.util.function.Function;
import picocli.CommandLine.Option;

/** Options that say how results are printed: the same options for every command that lists. */
public final class PrintOptions {
    @Option(
            names = "--format",
            paramLabel = "text|jsonl|csv",
            defaultValue = "text",
            description = "jsonl: a JSON object for each result; csv: a record (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(
            names = "--color",
            paramLabel = "auto|always|never",
            defaultValue = "auto",
            description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    private Terminal terminal;

    public ResultFormat format() {
        return format;
    }

    public boolean isText() {
        return format == ResultFormat.TEXT;
    }

    public Terminal terminal() {
        if (terminal == null) {
            terminal = new Terminal(color);
        }
        return terminal;
    }

    /** @see ResultPrinter#ResultPrinter */
    public <T> ResultPrinter<T> printer(Columns<T> columns, Function<T, ?> json, BiConsumer<Terminal, T> text) {
        return new ResultPrinter<>(terminal(), format, columns, json, text);
    }

    /** A printer for results that are a JSON object of their own. */
    public <T> ResultPrinter<T> printer(Columns<T> columns, BiConsumer<Terminal, T> text) {
        return printer(columns, result -> result, text);
    }
}
