package dev.oddbeacon.client;

import dev.oddbeacon.api.LinesAnswer;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "lines", mixinStandardHelpOptions = true, description = "Finds lines.%n",
        footer = {"", "On a terminal, hits are grouped by file and shown with context. In a pipe they are",
            "repository/path:line:column: text, one a line, without context.",
            "", "Examples:", "  oddbeacon lines \"mooring buffer\"", "  oddbeacon lines --regex --repo berth-planner 'assign\\w*\\('",
            "  oddbeacon lines --case match --word --under rule Violation"})
final class LinesCommand implements Callable<Integer> {
    private static final int PAGE = 1_000;

    /** Whether case counts. */
    enum CaseMode {
        AUTO, MATCH, IGNORE
    }

    @Parameters(paramLabel = "TEXT", description = "What to look for. Literally, with nothing to escape, unless --regex is given.")
    private String text;

    @Option(names = "--plain", description = "TEXT is what the lines hold, literally (the default).")
    private boolean plain;

    @Option(names = "--regex", description = "TEXT is a regular expression in RE2 syntax, matched within a line.")
    private boolean regex;

    @Option(names = "--case", paramLabel = "auto|match|ignore", defaultValue = "auto",
            description = "Whether case counts. auto: if TEXT has a capital (the default).")
    private CaseMode caseMode;

    @Option(names = "--word", description = "A match must not be part of a longer word.")
    private boolean word;

    @Mixin
    private ScopeOptions scope;

    @Option(names = "--context", paramLabel = "N", description = "Lines around each hit, 0 to 50 (default: 2 on a terminal, 0 in a pipe).")
    private Integer context;

    @Option(names = "--limit", paramLabel = "N|all", defaultValue = "100", converter = Limit.Converter.class, description = "Most hits to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(names = "--format", paramLabel = "text|jsonl", defaultValue = "text", description = "jsonl: a JSON object for each hit (default: ${DEFAULT-VALUE}).")
    private OutputFormat format;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        if (plain && regex) {
            throw new ServiceProblem("--plain and --regex exclude each other. Give one of them.", ClientMain.WRONG);
        }
        boolean grouped = format == OutputFormat.TEXT && Terminal.isInteractive();
        int lines = context != null ? context : grouped ? 2 : 0;
        Terminal terminal = new Terminal(color);
        HitPrinter printer = format == OutputFormat.JSONL ? new JsonHits(terminal, lines) : grouped || lines > 0 ? new GroupedHits(terminal) : new LineHits(terminal);

        long left = limit.most();
        String cursor = "";
        LinesAnswer first = null;
        do {
            LinesAnswer page = page(cursor, (int) Math.min(left, PAGE), lines);
            first = first == null ? page : first;
            page.files().forEach(printer::print);
            left -= page.files().stream().flatMap(file -> file.excerpts().stream()).flatMap(excerpt -> excerpt.lines().stream())
                    .filter(line -> !line.matches().isEmpty()).count();
            cursor = page.next();
        } while (cursor != null && left > 0);
        report(terminal, grouped, first, cursor != null);
        return first.counts().hits() > 0 ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }

    private LinesAnswer page(String cursor, int most, int lines) {
        Service.Parameters parameters = new Service.Parameters().add("q", text).add("reading", regex ? "regex" : "plain")
                .add("case", caseMode.name().toLowerCase(Locale.ROOT)).add("word", word).add("context", lines).add("limit", most);
        scope.addTo(parameters);
        if (!cursor.isEmpty()) {
            parameters.add("cursor", cursor);
        }
        return service.get(Service.path("search", "lines"), parameters, LinesAnswer.class);
    }

    private void report(Terminal terminal, boolean grouped, LinesAnswer answer, boolean cut) {
        LinesAnswer.Counts counts = answer.counts();
        String all = (counts.exact() ? "" : "at least ") + Amounts.of(counts.hits(), "hit") + " in " + Amounts.of(counts.files(), "file")
                + " of " + Amounts.of(counts.repositories(), "repository", "repositories");
        if (grouped) {
            terminal.line((counts.hits() == 0 ? "Nothing found in " + Amounts.of(answer.index().repositories(), "repository", "repositories") + "."
                    : all + (cut ? "; the first " + limit.most() + " are shown, --limit all shows every one." : ".")));
        } else if (cut) {
            Terminal.complain("the first " + limit.most() + " of " + all + "; --limit all prints every one.");
        }
        if (!answer.index().complete()) {
            Terminal.complain("not complete: " + answer.index().indexing() + " of " + Amounts.of(answer.index().repositories(), "repository", "repositories")
                    + " in the scope cannot be searched yet, or not as they are now; oddbeacon repos list shows them.");
        }
        if (answer.stopped() != null) {
            Terminal.complain("not complete: the search took too long and was stopped. Narrow it with --repo or --under, or add a longer literal text.");
        }
    }
}
