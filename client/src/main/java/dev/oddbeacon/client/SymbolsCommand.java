package dev.oddbeacon.client;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.api.SymbolsAnswer.Symbol;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code oddbeacon symbols}. */
@Command(name = "symbols", mixinStandardHelpOptions = true, description = "Finds what is declared, and where it is used, by its name.%n",
        footer = {"", "Examples:", "  oddbeacon symbols assign", "  oddbeacon symbols BerthPlanner.assign", "  oddbeacon symbols --kind class planner", "  oddbeacon symbols --plain --role use tideAt",
            "  oddbeacon symbols --glob 'read*' --type go"})
final class SymbolsCommand implements Callable<Integer> {
    private static final int PAGE = 1_000;

    /** Which places are meant. */
    enum Role {
        DECLARATION, USE, ANY
    }

    @Parameters(paramLabel = "NAME", arity = "1..*", description = "Parts of the name, or of what it is declared in, in any order: assign, berth assign, Berth.assign; first letters will do: bp for BerthPlanner.")
    private String[] texts = {};

    @Option(names = "--plain", description = "NAME is the whole name, as in Berth or Berth.assign.")
    private boolean plain;

    @Option(names = "--regex", description = "NAME is a regular expression in RE2 syntax.")
    private boolean regex;

    @Option(names = "--glob", description = "NAME is the whole name, with * and ? for others: get*.")
    private boolean glob;

    @Option(names = "--expression", description = "NAME is words and clauses, joined by and, or, not: tide or surge, like(berth).")
    private boolean expression;

    @Option(names = "--case", paramLabel = "auto|match|ignore", defaultValue = "auto", description = "Whether case counts; parts of names ignore it (default: ${DEFAULT-VALUE}).")
    private ReadingOptions.CaseMode caseMode;

    @Option(names = "--role", paramLabel = "declaration|use|any", defaultValue = "declaration", description = "Where it is declared, where it is used, or both (default: ${DEFAULT-VALUE}).")
    private Role role;

    @Option(names = "--kind", paramLabel = "K", description = "Declarations of such a kind: class, function, method, field, macro, key, ...")
    private List<String> kinds = new ArrayList<>();

    @Mixin
    private ScopeOptions scope;

    @Mixin
    private OpenOptions open;

    @Option(names = "--limit", paramLabel = "N|all", defaultValue = "100", converter = Limit.Converter.class, description = "Most places to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(names = "--format", paramLabel = "text|jsonl|csv", defaultValue = "text", description = "jsonl: a JSON object for each place; csv: a record (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    /** A place as a JSON object; see {@link Symbol}. */
    record Place(@JsonInclude(JsonInclude.Include.NON_NULL) String local, @JsonUnwrapped Symbol symbol) {}

    @Override
    public Integer call() {
        String reading = ReadingOptions.byFragments(plain, regex, glob, expression);
        String text = String.join(" ", texts);
        try {
            return run(text, reading);
        } catch (ServiceProblem problem) {
            throw Mistakes.marked(text, problem);
        }
    }

    private int run(String text, String reading) {
        Terminal terminal = new Terminal(color);
        if (format == ResultFormat.CSV) {
            terminal.line(CsvHits.row("repository", "branch", "commit", "path", "line", "column", "role", "kind", "container", "name", "text"));
        }
        SymbolPrinter printer = new SymbolPrinter(terminal, scope.names(service), Terminal.isInteractive());
        List<OpenOptions.Target> targets = new ArrayList<>();
        long left = limit.most();
        String cursor = "";
        SymbolsAnswer first = null;
        do {
            SymbolsAnswer page = page(text, reading, cursor, (int) Math.min(left, PAGE));
            first = first == null ? page : first;
            for (Symbol symbol : page.symbols()) {
                print(terminal, printer, symbol);
                if (open.isWanted()) {
                    targets.add(new OpenOptions.Target(symbol.repository(), symbol.path(), symbol.line(), symbol.column()));
                }
            }
            left -= page.symbols().size();
            cursor = page.next();
        } while (cursor != null && left > 0);
        report(terminal, first, cursor != null);
        open.open(scope.names(service), service, targets);
        return first.counts().symbols() > 0 ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }

    private void print(Terminal terminal, SymbolPrinter printer, Symbol symbol) {
        switch (format) {
            case JSONL -> terminal.line(Service.JSON.writeValueAsString(new Place(scope.names(service).local(symbol.repository(), symbol.path()).orElse(null), symbol)));
            case CSV -> terminal.line(CsvHits.row(symbol.repository(), symbol.branch(), symbol.commit(), symbol.path(), String.valueOf(symbol.line()), String.valueOf(symbol.column()), symbol.role(),
                    symbol.kind() == null ? "" : symbol.kind(), symbol.container(), symbol.name(), symbol.text()));
            case TEXT -> printer.print(symbol);
        }
    }

    private void report(Terminal terminal, SymbolsAnswer answer, boolean cut) {
        SymbolsAnswer.Counts counts = answer.counts();
        String roles = answer.facets().role().stream().map(facet -> Amounts.of(facet.hits(), facet.value())).reduce((a, b) -> a + " and " + b).orElse("0 places");
        String all = (counts.exact() ? "" : "at least ") + roles + " in " + Amounts.of(counts.files(), "file") + " of " + Amounts.of(counts.repositories(), "repository", "repositories");
        if (counts.symbols() == 0 && Terminal.isInteractive() && format == ResultFormat.TEXT) {
            terminal.line("Nothing of that name in " + Amounts.of(answer.index().repositories(), "repository", "repositories") + (role == Role.DECLARATION ? "; --role any looks for uses too." : "."));
        } else if (Terminal.isInteractive() && format == ResultFormat.TEXT) {
            terminal.line(all + (cut ? "; the first " + limit.most() + " are shown, --limit all shows every one." : "."));
        } else if (cut) {
            Terminal.complain("the first " + limit.most() + " of " + all + "; --limit all prints every one.");
        }
        if (!answer.index().complete()) {
            Terminal.complain("not complete: " + answer.index().indexing() + " of " + answer.index().repositories() + " repositories are not indexed as they are now.");
        }
        if (answer.stopped() != null) {
            Terminal.complain("not complete: the search took too much " + answer.stopped() + " and was stopped. Give more of the name.");
        }
        Mistakes.tellMissing(answer.index());
    }

    private SymbolsAnswer page(String text, String reading, String cursor, int most) {
        Service.Parameters parameters = new Service.Parameters().add("q", text).add("reading", reading).add("case", caseMode.name().toLowerCase(Locale.ROOT)).add("role", role.name().toLowerCase(Locale.ROOT))
                .addAll("kind", kinds).add("limit", most);
        if (!cursor.isEmpty()) {
            parameters.add("cursor", cursor);
        }
        scope.addTo(parameters, service);
        return service.search(Service.path("search", "symbols"), parameters, SymbolsAnswer.class);
    }
}
