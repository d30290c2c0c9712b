package dev.oddbeacon.client.options;

import dev.oddbeacon.client.output.OutputFormat;
import picocli.CommandLine.Option;

/** How a command prints that tells of one thing, or of few. */
public final class SingleFormat {
    @Option(
            names = "--format",
            paramLabel = "text|jsonl",
            defaultValue = "text",
            description = "jsonl: one JSON object a line (default: ${DEFAULT-VALUE}).")
    private OutputFormat format;

    public boolean isJson() {
        return format == OutputFormat.JSONL;
    }
}
