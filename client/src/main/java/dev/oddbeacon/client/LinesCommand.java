package dev.oddbeacon.client;

import dev.oddbeacon.api.AboutFile;
import dev.oddbeacon.api.LeftOut;
import dev.oddbeacon.api.CourseAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.LinesAnswer.Facet;
import dev.oddbeacon.api.SecondLooks;
import java.util.ArrayList;
import java.util.List;
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
            "  oddbeacon lines --expression 'near(4, tide, surge) not under(test*)'", "  oddbeacon lines --case match --word --under rule Violation",
            "  oddbeacon lines --without --under '*.java' --only files 'import '",
            "  oddbeacon lines --type go --not-trait test ticket", "  oddbeacon lines --about fare-gate:internal/ticket/ticket.go ticket"})
final class LinesCommand implements Callable<Integer> {
    private static final int PAGE = 1_000;

    /** What is printed. */
    enum Only {
        LINES, FILES, REPOSITORIES, MATCHES, COUNTS
    }

    /** In which order files come. */
    enum Order {
        PATH, RELEVANCE, RECENT
    }

    @Parameters(paramLabel = "TEXT", description = "What to look for. Literally, with nothing to escape, unless --regex or --expression is given.")
    private String text;

    @Mixin
    private ReadingOptions reading;

    @Mixin
    private ScopeOptions scope;

    @Option(names = "--without", description = "Find the files that lack TEXT.")
    private boolean without;

    @Option(names = "--context", paramLabel = "N", description = "Lines around each hit, 0 to 50 (default: 2 on a terminal, 0 in a pipe).")
    private Integer context;

    @Option(names = "--limit", paramLabel = "N|all", defaultValue = "100", converter = Limit.Converter.class, description = "Most hits to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(names = "--order", paramLabel = "path|relevance|recent", defaultValue = "path",
            description = "In which order files come. recent: by their last change (default: ${DEFAULT-VALUE}).")
    private Order order;

    @Option(names = "--only", paramLabel = "files|repositories|matches|counts", defaultValue = "lines", description = "Print that alone.")
    private Only only;

    @Option(names = "--null", description = "With --only files or repositories: a zero byte after each name in place of a line feed.")
    private boolean zeroBytes;

    @Option(names = "--format", paramLabel = "text|jsonl|csv", defaultValue = "text", description = "jsonl: a JSON object for each hit; csv: a record (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(names = "--about", paramLabel = "REPO:PATH", description = "Tell why this file is among the results, or which limit keeps it out.")
    private String about;

    @Option(names = "--over-time", description = "Tell when matching lines came in, and when they left.")
    private boolean overTime;

    @Mixin
    private OpenOptions open;

    @Option(names = "--explain", description = "Tell what the index was asked and what took how long.")
    private boolean explain;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        try {
            return run();
        } catch (ServiceProblem problem) {
            throw Mistakes.marked(text, problem);
        }
    }

    private int run() {
        Terminal terminal = new Terminal(color);
        if (about != null) {
            return about(terminal);
        }
        if (overTime) {
            return overTime(terminal);
        }
        boolean grouped = only == Only.LINES && format == ResultFormat.TEXT && Terminal.isInteractive();
        int lines = only != Only.LINES ? 0 : context != null ? context : grouped ? 2 : 0;
        HitPrinter printer = printer(terminal, grouped, lines);
        List<OpenOptions.Target> targets = new ArrayList<>();
        long left = limit.most();
        String cursor = "";
        LinesAnswer first = null;
        do {
            LinesAnswer page = page(cursor, (int) Math.min(left, PAGE), lines);
            first = first == null ? page : first;
            page.files().forEach(printer::print);
            if (open.isWanted()) {
                page.files().forEach(file -> targets.add(target(file)));
            }
            left -= page.files().stream().mapToLong(LinesCommand::shown).sum();
            cursor = page.next();
        } while (cursor != null && left > 0);
        summaries(terminal, first);
        report(terminal, grouped, first, cursor != null);
        open.open(scope.names(service), service, targets);
        return first.counts().files() > 0 ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }

    /** The first hit of a file; its beginning if it is shown without lines. */
    private static OpenOptions.Target target(LinesAnswer.FileHits file) {
        return file.excerpts().stream().flatMap(excerpt -> excerpt.lines().stream()).filter(line -> !line.matches().isEmpty()).findFirst()
                .map(line -> new OpenOptions.Target(file.repository(), file.path(), line.number(), line.matches().getFirst().start() + 1))
                .orElseGet(() -> new OpenOptions.Target(file.repository(), file.path(), 1, 1));
    }

    private int about(Terminal terminal) {
        ShowCommand.FileName name = ShowCommand.FileName.parse(about, null);
        AboutFile file = service.search(Service.path("search", "lines", "about"), parameters().add("repository", name.repository()).add("path", name.path()).add("rev", name.revision()), AboutFile.class);
        if (format == ResultFormat.JSONL) {
            terminal.line(Service.JSON.writeValueAsString(file));
        } else {
            AboutReport.print(terminal, file);
        }
        return file.found() ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }

    private int overTime(Terminal terminal) {
        CourseAnswer course = service.search(Service.path("search", "lines", "over-time"), parameters().add("limit", Math.min(limit.most(), PAGE)), CourseAnswer.class);
        if (format == ResultFormat.JSONL) {
            terminal.line(Service.JSON.writeValueAsString(course));
        } else {
            OverTimeReport.print(terminal, course);
        }
        if (course.next() != null) {
            Terminal.complain("the latest " + course.events().size() + " of " + Amounts.of(course.commits(), "commit") + " are told; --limit tells more.");
        }
        CommitsCommand.tellCovered(course.index().complete(), course.index().indexing(), course.index().repositories(), course.covered());
        return course.courses().isEmpty() ? ClientMain.NOTHING_FOUND : ClientMain.FOUND;
    }

    private HitPrinter printer(Terminal terminal, boolean grouped, int lines) {
        if (format == ResultFormat.CSV) {
            if (only != Only.LINES && only != Only.FILES) {
                throw new ServiceProblem("--format csv prints lines or files. Leave --only out, or take --only files.", ClientMain.WRONG);
            }
            return new CsvHits(terminal);
        }
        Names names = scope.names(service);
        return switch (only) {
            case FILES -> format == ResultFormat.JSONL ? new JsonHits(terminal, names, 0) : new FoundFiles(terminal, names, zeroBytes);
            case MATCHES -> new MatchedTexts(terminal);
            case LINES, REPOSITORIES, COUNTS -> format == ResultFormat.JSONL ? new JsonHits(terminal, names, lines)
                    : grouped || lines > 0 ? new GroupedHits(terminal, names) : new LineHits(terminal, names);
        };
    }

    /** Hits of a file on a page; a file without lines counts for one. */
    private static long shown(LinesAnswer.FileHits file) {
        return Math.max(1, file.excerpts().stream().flatMap(excerpt -> excerpt.lines().stream()).filter(line -> !line.matches().isEmpty()).count());
    }

    private Service.Parameters parameters() {
        Service.Parameters parameters = new Service.Parameters().add("q", text);
        reading.addTo(parameters);
        scope.addTo(parameters, service);
        return parameters.add("without", without);
    }

    private LinesAnswer page(String cursor, int most, int lines) {
        String shows = switch (only) {
            case FILES -> "files";
            case REPOSITORIES, COUNTS -> "counts";
            case LINES, MATCHES -> "lines";
        };
        Service.Parameters parameters = parameters().add("context", lines).add("limit", most).add("only", shows)
                .add("order", order.name().toLowerCase(Locale.ROOT)).add("explain", explain);
        if (!cursor.isEmpty()) {
            parameters.add("cursor", cursor);
        }
        return service.search(Service.path("search", "lines"), parameters, LinesAnswer.class);
    }

    private void summaries(Terminal terminal, LinesAnswer answer) {
        if (only == Only.COUNTS) {
            CountsReport.print(terminal, answer, format == ResultFormat.JSONL);
        } else if (only == Only.REPOSITORIES) {
            answer.facets().repository().stream().map(Facet::value).sorted().forEach(name -> terminal.item(name, zeroBytes));
        }
    }

    private void report(Terminal terminal, boolean grouped, LinesAnswer answer, boolean cut) {
        LinesAnswer.Counts counts = answer.counts();
        String all = (counts.exact() ? "" : "at least ") + (counts.hits() > 0 && only != Only.FILES ? Amounts.of(counts.hits(), "hit") + " in " : "") + Amounts.of(counts.files(), "file")
                + " of " + Amounts.of(counts.repositories(), "repository", "repositories");
        if (counts.files() == 0 && (grouped || only == Only.COUNTS)) {
            terminal.line("Nothing found in " + Amounts.of(answer.index().repositories(), "repository", "repositories") + ".");
        } else if (grouped || only == Only.COUNTS && format == ResultFormat.TEXT) {
            terminal.line(all + (cut ? "; the first " + limit.most() + " are shown, --limit all shows every one." : "."));
        } else if (cut) {
            Terminal.complain("the first " + limit.most() + " of " + all + "; --limit all prints every one.");
        }
        if (counts.files() == 0 && format == ResultFormat.TEXT && !without) {
            SecondLooksReport.print(service.search(Service.path("search", "lines", "second-looks"), parameters(), SecondLooks.class));
        }
        if (format == ResultFormat.TEXT && answer.query().expression().contains("except(")) {
            leftOut();
        }
        if (explain) {
            explain(answer.explanation());
        }
        if (!answer.index().complete()) {
            Terminal.complain("not complete: " + answer.index().indexing() + " of " + Amounts.of(answer.index().repositories(), "repository", "repositories")
                    + " in the scope cannot be searched yet, or not as they are now; oddbeacon repos list shows them.");
        }
        Mistakes.tellMissing(answer.index());
        if (answer.stopped() != null) {
            Terminal.complain("not complete: the search took too much " + answer.stopped() + " and was stopped. Narrow it with --repo or --under, or add a longer literal text.");
        }
    }

    /** Says what exclusion sets took away, and how to see it. */
    private void leftOut() {
        for (LeftOut.Set set : service.search(Service.path("search", "lines", "left-out"), parameters(), LeftOut.class).sets()) {
            Terminal.note((set.exact() ? "" : "At least ") + (set.hits() > 0 ? Amounts.of(set.hits(), "hit") + " in " : "") + Amounts.of(set.files(), "file")
                    + " left out by the exclusion set " + set.name() + (set.byDefault() ? "; --lift " + set.name() + " shows them." : "."));
        }
    }

    private static void explain(LinesAnswer.Explanation explanation) {
        Terminal.note("The index was asked for: " + (explanation.plan().isEmpty() ? "anything" : explanation.plan()));
        Terminal.note("  " + Amounts.of(explanation.lists(), "list") + " of postings, " + Amounts.bytes(explanation.postingsBytes()) + ", in " + Amounts.of(explanation.segments(), "segment")
                + "; " + Amounts.of(explanation.candidates(), "candidate") + ", " + Amounts.of(explanation.filesVerified(), "file") + " and " + Amounts.bytes(explanation.bytesVerified()) + " verified");
        explanation.stages().forEach(stage -> Terminal.note(String.format(Locale.ROOT, "  %-10s %9.2f ms", stage.name(), stage.millis())));
    }
}
