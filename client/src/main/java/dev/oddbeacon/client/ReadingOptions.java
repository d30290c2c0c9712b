package dev.oddbeacon.client;

import java.util.Locale;
import picocli.CommandLine.Option;

/** How TEXT is read. */
final class ReadingOptions {
    /** Whether case counts. */
    enum CaseMode {
        AUTO, MATCH, IGNORE
    }

    @Option(names = "--plain", description = "TEXT is what the lines hold, literally (the default).")
    private boolean plain;

    @Option(names = "--regex", description = "TEXT is a regular expression in RE2 syntax, matched within a line.")
    private boolean regex;

    @Option(names = "--expression", description = "TEXT is words, \"phrases\" and clauses, joined by and, or, not: tide near(8, ...), under(src).")
    private boolean expression;

    @Option(names = "--case", paramLabel = "auto|match|ignore", defaultValue = "auto",
            description = "Whether case counts. auto: if TEXT has a capital (the default).")
    private CaseMode caseMode;

    @Option(names = "--word", description = "A match must not be part of a longer word.")
    private boolean word;

    /** How a text is read that is taken for fragments unless one of these is given. */
    static String byFragments(boolean plain, boolean regex, boolean glob, boolean expression) {
        if ((plain ? 1 : 0) + (regex ? 1 : 0) + (glob ? 1 : 0) + (expression ? 1 : 0) > 1) {
            throw new ServiceProblem("--plain, --regex, --glob and --expression exclude each other. Give one of them.", ClientMain.WRONG);
        }
        return plain ? "plain" : regex ? "regex" : glob ? "glob" : expression ? "expression" : "fragments";
    }

    void addTo(Service.Parameters parameters) {
        if ((plain ? 1 : 0) + (regex ? 1 : 0) + (expression ? 1 : 0) > 1) {
            throw new ServiceProblem("--plain, --regex and --expression exclude each other. Give one of them.", ClientMain.WRONG);
        }
        parameters.add("reading", regex ? "regex" : expression ? "expression" : "plain").add("case", caseMode.name().toLowerCase(Locale.ROOT)).add("word", word);
    }
}
