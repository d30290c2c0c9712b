package dev.oddbeacon.client.command;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.client.options.FragmentOptions;
import dev.oddbeacon.client.options.HereOptions;
import dev.oddbeacon.client.options.Limit;
import dev.oddbeacon.client.options.NearOption;
import dev.oddbeacon.client.options.OpenOptions;
import dev.oddbeacon.client.options.Pages;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.MarkedText;
import dev.oddbeacon.client.output.Mistakes;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Remarks;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.SarifLog;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.worktree.ChangedFiles;
import dev.oddbeacon.client.worktree.FilesHere;
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
        name = "files",
        mixinStandardHelpOptions = true,
        description = "Finds files by their path, also those that searches for lines skip.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon files ticket test",
            "  oddbeacon files --repo hull-telemetry .h",
            "  oddbeacon files --glob '**/terminals/*.yaml' --long",
            "  oddbeacon files --kind folder test",
            "  oddbeacon files --type java --size +1k --order size",
            "  oddbeacon files --not-trait test --null --limit all"
        })
public final class FilesCommand implements Callable<Integer>, SearchToKeep {
    private static final int PAGE = 1_000;

    /** The kind of entry to find. */
    enum Kind {
        FILE,
        FOLDER
    }

    /** The order of the files. */
    enum Order {
        RELEVANCE,
        PATH,
        NAME,
        TYPE,
        LINES,
        SIZE,
        RECENT
    }

    @Parameters(
            paramLabel = "TEXT",
            arity = "0..*",
            description =
                    "Fragments of the path, in any order; each must occur. Letters may skip others: bpj for BerthPlanner.java. Without TEXT: all files.")
    private String[] texts = {};

    @Mixin
    private FragmentOptions reading;

    @Option(
            names = "--kind",
            paramLabel = "file|folder",
            defaultValue = "file",
            description = "What to find (default: ${DEFAULT-VALUE}).")
    private Kind kind;

    @Option(
            names = "--size",
            paramLabel = "+N|-N",
            description = "Files of at least, or at most, so many bytes; with k, M, G: +10k.")
    private String size;

    @Mixin
    private ScopeOptions scope;

    @Mixin
    private HereOptions here;

    @Option(
            names = "--order",
            paramLabel = "relevance|path|name|type|lines|size|recent",
            defaultValue = "relevance",
            description = "Order of the files (default: ${DEFAULT-VALUE}).")
    private Order order;

    @Mixin
    private NearOption near;

    @Option(names = "--reversed", description = "The other way round.")
    private boolean reversed;

    @Mixin
    private OpenOptions open;

    @Option(names = "--long", description = "Also bytes, lines, type, traits, and the date of its last change.")
    private boolean isLong;

    @Option(
            names = "--limit",
            paramLabel = "N|all",
            defaultValue = "100",
            converter = Limit.Converter.class,
            description = "Most files to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(names = "--null", description = "A zero byte after each path in place of a line feed.")
    private boolean zeroBytes;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    private static final Columns<FilesAnswer.File> COLUMNS = new Columns<FilesAnswer.File>()
            .add("repository", FilesAnswer.File::repository)
            .add("branch", FilesAnswer.File::branch)
            .add("commit", FilesAnswer.File::commit)
            .add("path", FilesAnswer.File::path)
            .add("kind", FilesAnswer.File::kind)
            .add("type", FilesAnswer.File::type)
            .add("traits", file -> String.join(" ", file.traits()))
            .add("bytes", FilesAnswer.File::bytes)
            .add("lines", FilesAnswer.File::lines);

    @Override
    public Integer call() {
        String text = String.join(" ", texts);
        return Mistakes.marking(text, () -> run(text));
    }

    private int run(String text) {
        ResultPrinter<FilesAnswer.File> printer = print.printer(COLUMNS, this::print);
        List<OpenOptions.Target> targets = new ArrayList<>();
        Pages<FilesAnswer> pages = Pages.of(
                limit.most(),
                PAGE,
                (cursor, most) -> page(text, cursor, most),
                page -> {
                    page.files().forEach(print.isSarif() ? file -> print.keep(found(file)) : printer::print);
                    page.files().stream()
                            .filter(file -> open.isWanted() && file.kind().equals("file"))
                            .forEach(file -> targets.add(new OpenOptions.Target(file.repository(), file.path(), 1, 1)));
                    return page.files().size();
                },
                FilesAnswer::next);
        print.end(service, "files", text);
        FilesAnswer first = pages.first();
        Remarks.tellAmount(
                print.terminal(), false, Amounts.of(first.counts().files(), "file"), limit.most(), pages.cut());
        Remarks.tellState(first.index());
        open.open(scope.names(service), service, targets);
        return ExitStatus.of(first.counts().files() > 0);
    }

    private static SarifLog.Found found(FilesAnswer.File file) {
        return SarifLog.Found.of(
                new Result(file.repository(), file.branch(), file.commit(), file.path(), null, null, null));
    }

    @Override
    public Service.Parameters toKeep() {
        return asked(String.join(" ", texts));
    }

    private Service.Parameters asked(String wanted) {
        Service.Parameters parameters = new Service.Parameters()
                .addGiven("q", wanted)
                .add("kind", kind)
                .add("order", order)
                .add("reversed", reversed)
                .addGiven("size", size);
        near.addTo(parameters);
        reading.addTo(parameters);
        scope.addTo(parameters, service);
        return parameters;
    }

    private FilesAnswer page(String wanted, String cursor, int most) {
        Optional<ChangedFiles> changed = changed();
        return changed.isEmpty() || !cursor.isEmpty()
                ? ask(wanted, cursor, most)
                : FilesHere.first(changed.get(), asked(wanted).values(), most, left -> ask(wanted, "", left));
    }

    /** Folders are told as they are indexed. */
    private Optional<ChangedFiles> changed() {
        return kind == Kind.FILE ? here.changed(scope, service) : Optional.empty();
    }

    private FilesAnswer ask(String wanted, String cursor, int most) {
        Service.Parameters parameters = asked(wanted).add("limit", most).addGiven("cursor", cursor);
        changed().ifPresent(changed -> changed.without(parameters));
        return service.search(Service.path("search", "files"), parameters, FilesAnswer.class);
    }

    private void print(Terminal terminal, FilesAnswer.File file) {
        Names names = scope.names(service);
        String end = file.kind().equals("folder") ? "/" : "";
        if (zeroBytes) {
            terminal.item(names.of(file.repository(), file.path()) + end, true);
            return;
        }
        String before = !isLong
                ? ""
                : String.format(
                        Locale.ROOT,
                        "%10d %7d  %-12s %s  ",
                        file.bytes(),
                        file.lines(),
                        file.type(),
                        file.changed().toString().substring(0, 10));
        String after = isLong && !file.traits().isEmpty() ? "   " + String.join(", ", file.traits()) : "";
        String skipped = file.skipped() != null && Terminal.isInteractive() ? "   not searched: " + file.skipped() : "";
        terminal.line(terminal.styled(Terminal.Style.QUIET, before + Terminal.clean(names.start(file.repository())))
                + marked(terminal, names.shown(file.repository(), file.path()), file)
                + end
                + terminal.styled(Terminal.Style.QUIET, after)
                + terminal.styled(Terminal.Style.QUIET, skipped));
    }

    /**
     * The path with its matches; one that is written from another folder has lost the beginning, and matches there with
     * it.
     */
    private static String marked(Terminal terminal, String shown, FilesAnswer.File file) {
        int lost = file.path().length() - shown.length();
        boolean isEnd = lost >= 0 && file.path().endsWith(shown);
        List<LinesAnswer.Match> matches = isEnd
                ? file.matches().stream()
                        .filter(match -> match.start() >= lost)
                        .map(match -> new LinesAnswer.Match(match.start() - lost, match.end() - lost))
                        .toList()
                : List.of();
        return MarkedText.of(terminal, new LinesAnswer.Line(1, shown, 0, matches, false));
    }
}
