package dev.oddbeacon.client.command;

import dev.oddbeacon.api.AboutFile;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.LeftOut;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.LinesAnswer.Facet;
import dev.oddbeacon.api.OverTimeAnswer;
import dev.oddbeacon.api.SecondLooks;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.options.HereOptions;
import dev.oddbeacon.client.options.Limit;
import dev.oddbeacon.client.options.NearOption;
import dev.oddbeacon.client.options.OpenOptions;
import dev.oddbeacon.client.options.Pages;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.options.ReadingOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.AboutReport;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.CountsReport;
import dev.oddbeacon.client.output.Mistakes;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.OverTimeReport;
import dev.oddbeacon.client.output.Remarks;
import dev.oddbeacon.client.output.ResultFormat;
import dev.oddbeacon.client.output.SecondLooksReport;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.output.hits.FoundFiles;
import dev.oddbeacon.client.output.hits.GroupedHits;
import dev.oddbeacon.client.output.hits.HitPrinter;
import dev.oddbeacon.client.output.hits.HitRecords;
import dev.oddbeacon.client.output.hits.MatchedTexts;
import dev.oddbeacon.client.output.hits.PositionEncoding;
import dev.oddbeacon.client.output.hits.SarifHits;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.ChangedFiles;
import dev.oddbeacon.client.worktree.LinesHere;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "lines",
        mixinStandardHelpOptions = true,
        description = "Finds lines.%n",
        footer = {
            "",
            "On a terminal, hits are grouped by file and shown with context. In a pipe they are",
            "repository/path:line:column: text, one a line, without context.",
            "",
            "Examples:",
            "  oddbeacon lines \"mooring buffer\"",
            "  oddbeacon lines --regex --repo berth-planner 'assign\\w*\\('",
            "  oddbeacon lines --expression 'near(4, tide, surge) not under(test*)'",
            "  oddbeacon lines --case match --word --under rule Violation",
            "  oddbeacon lines --without --under '*.java' --only files 'import '",
            "  oddbeacon lines --near fare-gate:internal/ticket/ticket.go window",
            "  oddbeacon lines --type go --not-trait test ticket",
            "  oddbeacon lines --about fare-gate:internal/ticket/ticket.go ticket"
        })
public final class LinesCommand implements Callable<Integer>, SearchToKeep {
    private static final int PAGE = 1_000;
    /** Hits of a file that are enough to see whether it is the one that is meant. */
    private static final int FEW = 10;

    /** The form of the output. */
    enum Only {
        LINES,
        FILES,
        REPOSITORIES,
        MATCHES,
        COUNTS
    }

    /** The order of the files. */
    enum Order {
        RELEVANCE,
        PATH,
        RECENT
    }

    @Parameters(
            paramLabel = "TEXT",
            description =
                    "What to look for. Literally, with nothing to escape, unless --regex or --expression is given.")
    private String text;

    @Mixin
    private ReadingOptions reading;

    @Mixin
    private ScopeOptions scope;

    @Mixin
    private HereOptions here;

    @Option(names = "--without", description = "Find the files that lack TEXT.")
    private boolean without;

    @Option(
            names = "--context",
            paramLabel = "N",
            description = "Lines around each hit, 0 to 50 (default: 2 on a terminal, 0 in a pipe).")
    private Integer context;

    @Option(
            names = "--limit",
            paramLabel = "N|all",
            defaultValue = "100",
            converter = Limit.Converter.class,
            description = "Most hits to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(
            names = "--order",
            paramLabel = "relevance|path|recent",
            defaultValue = "relevance",
            description = "Order of the files. relevance: the likeliest first. recent: by their last change (default: "
                    + "${DEFAULT-VALUE}).")
    private Order order;

    @Mixin
    private NearOption near;

    @Option(
            names = "--per-file",
            paramLabel = "N|all",
            converter = Limit.Converter.class,
            description =
                    "Most hits to print of each file, its declaration of TEXT among them (default: 10 on a terminal in the "
                            + "order of relevance, else all).")
    private Limit perFile;

    @Option(
            names = "--only",
            paramLabel = "files|repositories|matches|counts",
            defaultValue = "lines",
            description = "Print only that.")
    private Only only;

    @Option(
            names = "--null",
            description = "With --only files or repositories: a zero byte after each name in place of a line feed.")
    private boolean zeroBytes;

    @Option(
            names = "--about",
            paramLabel = "REPO:PATH",
            description = "Tell why this file is among the results, or which limit keeps it out.")
    private String about;

    @Option(names = "--over-time", description = "Tell when matching lines came in, and when they left.")
    private boolean overTime;

    @Option(
            names = "--position-encoding",
            paramLabel = "utf-8|utf-16|utf-32",
            defaultValue = "utf-16",
            converter = PositionEncoding.Converter.class,
            description =
                    "What columns and matches count: bytes, UTF-16 units or code points (default: ${DEFAULT-VALUE}).")
    private PositionEncoding encoding;

    @Mixin
    private OpenOptions open;

    @Option(names = "--explain", description = "Explain what the index was asked, and how long each step took.")
    private boolean explain;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        return Mistakes.marking(text, this::run);
    }

    private int run() {
        if (about != null) {
            return about();
        }
        if (overTime) {
            return overTime();
        }
        boolean grouped = only == Only.LINES && print.isText() && Terminal.isInteractive();
        int lines = only != Only.LINES ? 0 : context != null ? context : grouped ? 2 : 0;
        HitPrinter printer = printer(grouped, lines);
        List<OpenOptions.Target> targets = new ArrayList<>();
        Pages<LinesAnswer> pages = Pages.of(
                limit.most(),
                PAGE,
                (cursor, most) -> page(cursor, most, lines, grouped),
                page -> {
                    page.files().forEach(printer::print);
                    if (open.isWanted()) {
                        page.files().forEach(file -> targets.add(target(file)));
                    }
                    return page.files().stream().mapToLong(LinesCommand::shown).sum();
                },
                LinesAnswer::next);
        print.end(service, "lines", text);
        summaries(pages.first());
        report(grouped, pages.first(), pages.cut());
        open.open(scope.names(service), service, targets);
        return ExitStatus.of(pages.first().counts().files() > 0);
    }

    /** The first hit of a file; its beginning if it is shown without lines. */
    private static OpenOptions.Target target(LinesAnswer.FileHits file) {
        return file.excerpts().stream()
                .flatMap(excerpt -> excerpt.lines().stream())
                .filter(line -> !line.matches().isEmpty())
                .findFirst()
                .map(line -> new OpenOptions.Target(
                        file.repository(),
                        file.path(),
                        line.number(),
                        line.matches().getFirst().start() + 1))
                .orElseGet(() -> new OpenOptions.Target(file.repository(), file.path(), 1, 1));
    }

    private int about() {
        FileName name = FileName.parse(about, null);
        AboutFile file = service.search(
                Service.path("search", "lines", "about"),
                parameters()
                        .add("repository", name.repository())
                        .add("path", name.path())
                        .add("rev", name.revision()),
                AboutFile.class);
        if (print.format() == ResultFormat.JSONL) {
            print.terminal().json(file);
        } else {
            AboutReport.print(print.terminal(), file);
        }
        return ExitStatus.of(file.found());
    }

    private int overTime() {
        OverTimeAnswer course = service.search(
                Service.path("search", "lines", "over-time"),
                parameters().add("limit", Math.min(limit.most(), PAGE)),
                OverTimeAnswer.class);
        if (print.format() == ResultFormat.JSONL) {
            print.terminal().json(course);
        } else {
            OverTimeReport.print(print.terminal(), course);
        }
        if (course.next() != null) {
            Terminal.complain("the latest " + course.events().size() + " of " + Amounts.of(course.commits(), "commit")
                    + " are told; --limit tells more.");
        }
        Remarks.tellPast(course.index(), course.covered());
        return ExitStatus.of(!course.courses().isEmpty());
    }

    private HitPrinter printer(boolean grouped, int lines) {
        Terminal terminal = print.terminal();
        Names names = scope.names(service);
        if (print.format() == ResultFormat.CSV && only != Only.LINES && only != Only.FILES) {
            throw new ServiceProblem(
                    "--format csv prints lines or files. Leave --only out, or take --only files.", ExitStatus.WRONG);
        }
        if (print.isSarif() && only != Only.LINES && only != Only.FILES) {
            throw new ServiceProblem(
                    "--format sarif tells lines or files. Leave --only out, or take --only files.", ExitStatus.WRONG);
        }
        if (print.isSarif()) {
            return new SarifHits(print::keep);
        }
        if (only == Only.MATCHES) {
            return new MatchedTexts(terminal);
        }
        if (only == Only.FILES && print.isText()) {
            return new FoundFiles(terminal, names, zeroBytes);
        }
        return print.isText() && (grouped || lines > 0)
                ? new GroupedHits(terminal, names)
                : new HitRecords(terminal, print.format(), names, lines, encoding, this::wholeLine);
    }

    /** A line of which a hit holds a part only. */
    private String wholeLine(LinesAnswer.FileHits file, int number) {
        return service.get(
                        Service.path("repositories", file.repository(), "file"),
                        new Service.Parameters().add("path", file.path()).add("rev", file.branch()),
                        FileContent.class)
                .text()
                .split("\n", -1)[number - 1];
    }

    /** Hits of a file on a page; a file without lines counts for one. */
    private static long shown(LinesAnswer.FileHits file) {
        return Math.max(
                1,
                file.excerpts().stream()
                        .flatMap(excerpt -> excerpt.lines().stream())
                        .filter(line -> !line.matches().isEmpty())
                        .count());
    }

    private Service.Parameters parameters() {
        Service.Parameters parameters = new Service.Parameters().add("q", text);
        reading.addTo(parameters);
        scope.addTo(parameters, service);
        return parameters.add("without", without);
    }

    @Override
    public Service.Parameters toKeep() {
        Service.Parameters parameters = parameters().add("order", order);
        near.addTo(parameters);
        return only == Only.FILES ? parameters.add("only", only) : parameters;
    }

    private LinesAnswer page(String cursor, int most, int lines, boolean grouped) {
        Optional<ChangedFiles> changed = here.changed(scope, service);
        return changed.isEmpty() || !cursor.isEmpty()
                ? ask(asked(lines, grouped), cursor, most, shows())
                : LinesHere.first(
                        changed.get(),
                        asked(lines, grouped).add("only", shows()).values(),
                        most,
                        (left, shown) -> ask(asked(lines, grouped), "", left, shown ? shows() : "counts"));
    }

    private String shows() {
        return switch (only) {
            case FILES -> "files";
            case REPOSITORIES, COUNTS -> "counts";
            case LINES, MATCHES -> "lines";
        };
    }

    private Service.Parameters asked(int lines, boolean grouped) {
        Service.Parameters parameters =
                parameters().add("context", lines).add("order", order).add("explain", explain);
        near.addTo(parameters);
        long shown = perFile != null ? perFile.most() : grouped && order == Order.RELEVANCE ? FEW : Long.MAX_VALUE;
        if (shown < PAGE) {
            parameters.add("perFile", shown);
        }
        return parameters;
    }

    private LinesAnswer ask(Service.Parameters parameters, String cursor, int most, String shows) {
        here.changed(scope, service).ifPresent(changed -> changed.without(parameters));
        return service.search(
                Service.path("search", "lines"),
                parameters.add("limit", most).add("only", shows).addGiven("cursor", cursor),
                LinesAnswer.class);
    }

    private void summaries(LinesAnswer answer) {
        if (only == Only.COUNTS) {
            CountsReport.print(print.terminal(), answer, print.format() == ResultFormat.JSONL);
        } else if (only == Only.REPOSITORIES) {
            answer.facets().repository().stream()
                    .map(Facet::value)
                    .sorted()
                    .forEach(name -> print.terminal().item(name, zeroBytes));
        }
    }

    private void report(boolean grouped, LinesAnswer answer, boolean cut) {
        LinesAnswer.Counts counts = answer.counts();
        boolean forPeople = grouped || only == Only.COUNTS && print.isText();
        if (counts.files() == 0 && forPeople) {
            print.terminal()
                    .line("Nothing found in " + Amounts.of(answer.index().repositories(), "repository", "repositories")
                            + ".");
        } else if (counts.files() == 0) {
            Terminal.note("Nothing found in " + Amounts.of(answer.index().repositories(), "repository", "repositories")
                    + ".");
        } else {
            String hits = counts.hits() > 0 && only != Only.FILES ? Amounts.of(counts.hits(), "hit") + " in " : "";
            String all = (counts.exact() ? "" : "at least ") + hits + Amounts.of(counts.files(), "file") + " of "
                    + Amounts.of(counts.repositories(), "repository", "repositories");
            Remarks.tellAmount(print.terminal(), forPeople, all, limit.most(), cut);
        }
        if (counts.files() == 0 && print.isText() && !without) {
            SecondLooksReport.print(
                    service.search(Service.path("search", "lines", "second-looks"), parameters(), SecondLooks.class),
                    scope::here);
            tellOfThePast();
        }
        if (print.isText() && answer.query().expression().contains("except(")) {
            leftOut();
        }
        if (explain) {
            explain(answer.explanation());
        }
        Remarks.tellState(answer.index());
        Remarks.tellStopped(answer.stopped(), "Narrow it with --repo or --under, or add a longer literal text.");
    }

    /** There may have been such lines once: commits that removed some are told of, as on the page of results. */
    private void tellOfThePast() {
        if (!reading.isPlain() || text.isBlank() || text.indexOf('\n') >= 0) {
            return;
        }
        Service.Parameters past = new Service.Parameters().add("removes", text).add("limit", 1);
        scope.addTo(past, service);
        try {
            CommitsAnswer.Counts removed = service.search(Service.path("search", "commits"), past, CommitsAnswer.class)
                    .counts();
            if (removed.commits() > 0) {
                Terminal.note("There were such lines once: " + (removed.exact() ? "" : "at least ")
                        + Amounts.of(removed.commits(), "commit") + " removed some.\n      oddbeacon commits --removes "
                        + SecondLooksReport.shellQuoted(text));
            }
        } catch (ServiceProblem e) {
            // it was an offer only
        }
    }

    /** Says what exclusion sets took away, and how to see it. */
    private void leftOut() {
        for (LeftOut.Set set : service.search(Service.path("search", "lines", "left-out"), parameters(), LeftOut.class)
                .sets()) {
            Terminal.note(
                    (set.exact() ? "" : "At least ") + (set.hits() > 0 ? Amounts.of(set.hits(), "hit") + " in " : "")
                            + Amounts.of(set.files(), "file") + " left out by the exclusion set " + set.name()
                            + (set.byDefault() ? "; --lift " + set.name() + " shows them." : "."));
        }
    }

    private static void explain(LinesAnswer.Explanation explanation) {
        Terminal.note("The index was asked for: " + (explanation.plan().isEmpty() ? "anything" : explanation.plan()));
        Terminal.note("  " + Amounts.of(explanation.lists(), "list") + " of postings, "
                + Amounts.bytes(explanation.postingsBytes()) + ", in " + Amounts.of(explanation.segments(), "segment")
                + "; " + Amounts.of(explanation.candidates(), "candidate") + ", "
                + Amounts.of(explanation.filesVerified(), "file") + " and " + Amounts.bytes(explanation.bytesVerified())
                + " verified");
        explanation
                .stages()
                .forEach(stage ->
                        Terminal.note(String.format(Locale.ROOT, "  %-10s %9.2f ms", stage.name(), stage.millis())));
    }
}
