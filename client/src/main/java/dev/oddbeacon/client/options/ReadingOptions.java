package dev.oddbeacon.client.options;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import picocli.CommandLine.Option;

/** Options that say how TEXT is read. */
public final class ReadingOptions {
    /** Whether case counts. */
    public enum CaseMode {
        AUTO,
        MATCH,
        IGNORE
    }

    @Option(names = "--plain", description = "TEXT is what the lines hold, literally (the default).")
    private boolean plain;

    @Option(names = "--regex", description = "TEXT is a regular expression in RE2 syntax, matched within a line.")
    private boolean regex;

    @Option(
            names = "--expression",
            description =
                    "TEXT is words, \"phrases\" and clauses, joined by and, or, not: tide near(8, ...), under(src).")
    private boolean expression;

    @Option(
            names = "--case",
            paramLabel = "auto|match|ignore",
            defaultValue = "auto",
            description = "Whether case counts. auto: if TEXT has a capital (the default).")
    private CaseMode caseMode;

    @Option(names = "--word", description = "A match must not be part of a longer word.")
    private boolean word;

    public void addTo(Service.Parameters parameters) {
        if ((plain ? 1 : 0) + (regex ? 1 : 0) + (expression ? 1 : 0) > 1) {
            throw new ServiceProblem(
                    "--plain, --regex and --expression exclude each other. Give one of them.", ExitStatus.WRONG);
        }
        parameters
                .add("reading", regex ? "regex" : expression ? "expression" : "plain")
                .add("case", caseMode)
                .add("word", word);
    }

    /** Whether the text is taken as it is. */
    public boolean isPlain() {
        return !regex && !expression;
    }
}
