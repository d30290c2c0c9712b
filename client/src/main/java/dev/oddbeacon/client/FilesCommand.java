package dev.oddbeacon.client;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "files", mixinStandardHelpOptions = true, description = "Finds files by their path; those that are skipped by searches for lines as well.%n",
        footer = {"", "Examples:", "  oddbeacon files ticket test", "  oddbeacon files --repo hull-telemetry .h", "  oddbeacon files --glob '**/terminals/*.yaml' --long",
            "  oddbeacon files --kind folder test", "  oddbeacon files --type java --size +1k --order size", "  oddbeacon files --not-trait test --null --limit all"})
final class FilesCommand implements Callable<Integer> {
    private static final int PAGE = 1_000;

    /** What is looked for. */
    enum Kind {
        FILE, FOLDER
    }

    /** In which order files come. */
    enum Order {
        RELEVANCE, PATH, NAME, TYPE, LINES, SIZE, RECENT
    }

    @Parameters(paramLabel = "TEXT", arity = "0..*", description = "Fragments of the path, in any order; each must occur. Letters may skip others: bpj for BerthPlanner.java. Without TEXT: all files.")
    private String[] texts = {};

    @Option(names = "--plain", description = "The path holds TEXT, literally.")
    private boolean plain;

    @Option(names = "--regex", description = "TEXT is a regular expression in RE2 syntax.")
    private boolean regex;

    @Option(names = "--glob", description = "TEXT is a glob for the whole path, or for the name if it has no slash.")
    private boolean glob;

    @Option(names = "--expression", description = "TEXT is words, \"phrases\" and clauses, joined by and, or, not.")
    private boolean expression;

    @Option(names = "--case", paramLabel = "auto|match|ignore", defaultValue = "auto", description = "Whether case counts; fragments and globs have their own ways (default: ${DEFAULT-VALUE}).")
    private ReadingOptions.CaseMode caseMode;

    @Option(names = "--kind", paramLabel = "file|folder", defaultValue = "file", description = "What to find (default: ${DEFAULT-VALUE}).")
    private Kind kind;

    @Option(names = "--size", paramLabel = "+N|-N", description = "Files of at least, or at most, so many bytes; with k, M, G: +10k.")
    private String size;

    @Mixin
    private ScopeOptions scope;

    @Option(names = "--order", paramLabel = "relevance|path|name|type|lines|size|recent", defaultValue = "relevance", description = "In which order files come (default: ${DEFAULT-VALUE}).")
    private Order order;

    @Option(names = "--reversed", description = "The other way round.")
    private boolean reversed;

    @Mixin
    private OpenOptions open;

    @Option(names = "--long", description = "Also bytes, lines, type, traits, and the date of the branch's last commit.")
    private boolean isLong;

    @Option(names = "--limit", paramLabel = "N|all", defaultValue = "100", converter = Limit.Converter.class, description = "Most files to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(names = "--null", description = "A zero byte after each path in place of a line feed.")
    private boolean zeroBytes;

    @Option(names = "--format", paramLabel = "text|jsonl|csv", defaultValue = "text", description = "jsonl: a JSON object for each file; csv: a record (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

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
            terminal.line(CsvHits.row("repository", "branch", "commit", "path", "kind", "type", "traits", "bytes", "lines"));
        }
        List<OpenOptions.Target> targets = new ArrayList<>();
        long left = limit.most();
        String cursor = "";
        FilesAnswer first = null;
        do {
            FilesAnswer page = page(text, reading, cursor, (int) Math.min(left, PAGE));
            first = first == null ? page : first;
            page.files().forEach(file -> print(terminal, file));
            page.files().stream().filter(file -> open.isWanted() && file.kind().equals("file")).forEach(file -> targets.add(new OpenOptions.Target(file.repository(), file.path(), 1, 1)));
            left -= page.files().size();
            cursor = page.next();
        } while (cursor != null && left > 0);
        if (cursor != null) {
            Terminal.complain("the first " + limit.most() + " of " + Amounts.of(first.counts().files(), "file") + "; narrow the search, or --limit all prints every one.");
        }
        if (!first.index().complete()) {
            Terminal.complain("not complete: " + first.index().indexing() + " of " + first.index().repositories() + " repositories are not indexed as they are now.");
        }
        Mistakes.tellMissing(first.index());
        open.open(scope.names(service), service, targets);
        return first.counts().files() > 0 ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }

    private FilesAnswer page(String text, String reading, String cursor, int most) {
        Service.Parameters parameters = new Service.Parameters().add("q", text).add("reading", reading).add("case", lower(caseMode)).add("kind", lower(kind)).add("order", lower(order)).add("reversed", reversed).add("limit", most);
        if (size != null) {
            parameters.add("size", size);
        }
        if (!cursor.isEmpty()) {
            parameters.add("cursor", cursor);
        }
        scope.addTo(parameters, service);
        return service.search(Service.path("search", "files"), parameters, FilesAnswer.class);
    }

    private static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    private void print(Terminal terminal, FilesAnswer.File file) {
        if (format == ResultFormat.JSONL) {
            terminal.line(Service.JSON.writeValueAsString(file));
            return;
        }
        if (format == ResultFormat.CSV) {
            terminal.line(CsvHits.row(file.repository(), file.branch(), file.commit(), file.path(), file.kind(), file.type(), String.join(" ", file.traits()), String.valueOf(file.bytes()), String.valueOf(file.lines())));
            return;
        }
        Names names = scope.names(service);
        String path = names.of(file.repository(), file.path()) + (file.kind().equals("folder") ? "/" : "");
        if (zeroBytes) {
            terminal.item(path, true);
            return;
        }
        String before = !isLong ? "" : String.format(Locale.ROOT, "%10d %7d  %-12s %s  ", file.bytes(), file.lines(), file.type(), file.changed().toString().substring(0, 10));
        String after = isLong && !file.traits().isEmpty() ? "   " + String.join(", ", file.traits()) : "";
        terminal.line(terminal.styled(Terminal.Style.QUIET, before + Terminal.clean(names.start(file.repository()))) + marked(terminal, names.shown(file.repository(), file.path()), file)
                + (file.kind().equals("folder") ? "/" : "") + terminal.styled(Terminal.Style.QUIET, after) + (file.skipped() != null && Terminal.isInteractive() ? terminal.styled(Terminal.Style.QUIET, "   not searched: " + file.skipped()) : ""));
    }

    /** The path with its matches; one that is written from another folder has lost the beginning, and matches there with it. */
    private static String marked(Terminal terminal, String shown, FilesAnswer.File file) {
        int lost = file.path().length() - shown.length();
        boolean isEnd = lost >= 0 && file.path().endsWith(shown);
        List<LinesAnswer.Match> matches = isEnd ? file.matches().stream().filter(match -> match.start() >= lost).map(match -> new LinesAnswer.Match(match.start() - lost, match.end() - lost)).toList() : List.of();
        return MarkedText.of(terminal, new LinesAnswer.Line(1, shown, 0, matches, false));
    }
}
