package dev.oddbeacon.client.options;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.stream.Stream;
import picocli.CommandLine.Option;

/** Options that say how TEXT is read; it is read as fragments unless one of them is given: for files, symbols and commits. */
public final class FragmentOptions {
    @Option(
            names = "--plain",
            description = "TEXT is taken literally: the path or the message holds it, the name is it.")
    private boolean plain;

    @Option(names = "--regex", description = "TEXT is a regular expression in RE2 syntax.")
    private boolean regex;

    @Option(
            names = "--glob",
            description =
                    "TEXT is a pattern with * and ?: for the whole path or file name, for the whole name of a symbol, for words of a message.")
    private boolean glob;

    @Option(names = "--expression", description = "TEXT is words, \"phrases\" and clauses, joined by and, or, not.")
    private boolean expression;

    @Option(
            names = "--case",
            paramLabel = "auto|match|ignore",
            defaultValue = "auto",
            description = "Whether case counts; fragments of paths and names ignore it (default: ${DEFAULT-VALUE}).")
    private ReadingOptions.CaseMode caseMode;

    public void addTo(Service.Parameters parameters) {
        if (Stream.of(plain, regex, glob, expression).filter(given -> given).count() > 1) {
            throw new ServiceProblem(
                    "--plain, --regex, --glob and --expression exclude each other. Give one of them.",
                    ExitStatus.WRONG);
        }
        parameters
                .add(
                        "reading",
                        plain ? "plain" : regex ? "regex" : glob ? "glob" : expression ? "expression" : "fragments")
                .add("case", caseMode);
    }
}
