package dev.oddbeacon.client.output;

import java.util.function.BiConsumer;
import java.util.function.Function;

/**
 * Prints one result after another, as text, JSON lines or CSV: the header of CSV before the first, also if none
 * follows.
 */
public final class ResultPrinter<T> {
    private final Terminal terminal;
    private final ResultFormat format;
    private final Columns<T> columns;
    private final Function<T, ?> json;
    private final BiConsumer<Terminal, T> text;

    /**
     * @param columns of CSV
     * @param json what is written of a result as a JSON object
     * @param text prints a result for people
     */
    public ResultPrinter(
            Terminal terminal,
            ResultFormat format,
            Columns<T> columns,
            Function<T, ?> json,
            BiConsumer<Terminal, T> text) {
        this.terminal = terminal;
        this.format = format;
        this.columns = columns;
        this.json = json;
        this.text = text;
        if (format == ResultFormat.CSV) {
            terminal.line(columns.header());
        }
    }

    public void print(T result) {
        switch (format) {
            case JSONL -> terminal.json(json.apply(result));
            case CSV -> terminal.line(columns.record(result));
            case TEXT -> text.accept(terminal, result);
            case SARIF -> throw new IllegalStateException("all results make one log");
        }
    }
}
