package dev.oddbeacon.client.options;

import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.ResultFormat;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.SarifLog;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.RepositoryAddresses;
import dev.oddbeacon.client.service.Service;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.BiConsumer;
import java.util.function.Function;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.IGetter;
import picocli.CommandLine.Model.ISetter;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Options that say how results are printed: the same options for every command that lists. */
public final class PrintOptions {
    /** The commands whose results can be told as one log. */
    private static final Set<String> SEARCHES = Set.of("lines", "files", "symbols", "commits");

    private ResultFormat format = ResultFormat.TEXT;
    private final List<SarifLog.Found> found = new ArrayList<>();

    @Option(
            names = "--color",
            paramLabel = "auto|always|never",
            defaultValue = "auto",
            description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    private Terminal terminal;

    /** The option for the format, which has one more value for searches. */
    @Spec(Spec.Target.MIXEE)
    void addFormat(CommandSpec command) {
        boolean isSearch = SEARCHES.contains(command.name());
        command.addOption(OptionSpec.builder("--format")
                .paramLabel(isSearch ? "text|jsonl|csv|sarif" : "text|jsonl|csv")
                .description("jsonl: a JSON object for each result; csv: a record"
                        + (isSearch ? "; sarif: all as one SARIF 2.1.0 log" : "") + " (default: ${DEFAULT-VALUE}).")
                .defaultValue("text")
                .type(ResultFormat.class)
                .getter(new IGetter() {
                    @Override
                    @SuppressWarnings({"unchecked", "TypeParameterUnusedInFormals"}) // the parser wants any type
                    public <T> T get() {
                        return (T) format;
                    }
                })
                .setter(new ISetter() {
                    @Override
                    public <T> T set(T value) {
                        if (value == ResultFormat.SARIF && !isSearch) {
                            throw new ParameterException(
                                    command.commandLine(),
                                    "--format sarif is for searches: lines, files, symbols, commits. Take text, jsonl or csv.");
                        }
                        format = (ResultFormat) value;
                        return value;
                    }
                })
                .build());
    }

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

    public boolean isSarif() {
        return format == ResultFormat.SARIF;
    }

    /** Keeps a result for the log of all. */
    public void keep(SarifLog.Found one) {
        found.add(one);
    }

    /**
     * Prints the log of all results, if one is wanted.
     *
     * @param subject of the search
     * @param about what was looked for
     */
    public void end(Service service, String subject, String about) {
        if (isSarif()) {
            terminal()
                    .line(Service.JSON
                            .writerWithDefaultPrettyPrinter()
                            .writeValueAsString(SarifLog.of(
                                    Terminal.version().orElse("0"),
                                    new SarifLog.Looked(subject, about.isEmpty() ? "All " + subject : about, false),
                                    found,
                                    new RepositoryAddresses(service)::of)));
        }
    }
}
