package dev.oddbeacon.client.command;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer.Match;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.client.options.FragmentOptions;
import dev.oddbeacon.client.options.Limit;
import dev.oddbeacon.client.options.Pages;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.CommitText;
import dev.oddbeacon.client.output.Mistakes;
import dev.oddbeacon.client.output.Remarks;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.SarifLog;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code oddbeacon commits}. */
@Command(
        name = "commits",
        mixinStandardHelpOptions = true,
        description = "Finds commits of all repositories, the newest first.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon commits surge threshold",
            "  oddbeacon commits --by marta --after 2w",
            "  oddbeacon commits --adds MOORING_BUFFER --repo berth-planner",
            "  oddbeacon commits --expression 'removes(/old-.*-host/) touches(*.yaml)'"
        })
public final class CommitsCommand implements Callable<Integer>, SearchToKeep {
    private static final int PAGE = 500;

    @Parameters(
            paramLabel = "TEXT",
            arity = "0..*",
            description = "Words of the message, or of the people, in any order. Without any, all commits.")
    private String[] texts = {};

    @Mixin
    private FragmentOptions reading;

    @Option(names = "--word", description = "Only whole words.")
    private boolean word;

    @Option(
            names = "--by",
            paramLabel = "PERSON",
            description = "Written or committed by somebody of such a name or address.")
    private List<String> by = new ArrayList<>();

    @Option(names = "--touches", paramLabel = "GLOB", description = "That changed such a folder or file.")
    private List<String> touches = new ArrayList<>();

    @Option(names = "--adds", paramLabel = "TEXT", description = "That added a line with this text.")
    private List<String> adds = new ArrayList<>();

    @Option(names = "--removes", paramLabel = "TEXT", description = "That removed a line with this text.")
    private List<String> removes = new ArrayList<>();

    @Option(
            names = "--after",
            paramLabel = "DAY",
            description = "Committed on that day or later: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago.")
    private String after;

    @Option(names = "--before", paramLabel = "DAY", description = "Committed before that day.")
    private String before;

    @Mixin
    private ScopeOptions scope;

    @Option(
            names = "--limit",
            paramLabel = "N|all",
            defaultValue = "50",
            converter = Limit.Converter.class,
            description = "Most commits to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    /** A commit as a JSON object. */
    record Printed(
            @JsonUnwrapped CommitInfo commit,
            List<Match> matches,
            List<CommitInfo.ChangedFile> files,
            int fileCount,
            List<CommitsAnswer.Line> lines) {}

    private static final Columns<CommitsAnswer.Commit> COLUMNS = new Columns<CommitsAnswer.Commit>()
            .add("repository", found -> found.commit().repository())
            .add("commit", found -> found.commit().id())
            .add("authored", found -> found.commit().authored())
            .add("author", found -> found.commit().author().name())
            .add("address", found -> found.commit().author().email())
            .add("files", CommitsAnswer.Commit::fileCount)
            .add(
                    "added",
                    found -> found.files().stream()
                            .mapToInt(CommitInfo.ChangedFile::added)
                            .sum())
            .add(
                    "removed",
                    found -> found.files().stream()
                            .mapToInt(CommitInfo.ChangedFile::removed)
                            .sum())
            .add("summary", found -> found.commit().summary());

    @Override
    public Integer call() {
        String text = String.join(" ", texts);
        return Mistakes.marking(text, () -> run(text));
    }

    private int run(String text) {
        ResultPrinter<CommitsAnswer.Commit> printer = print.printer(
                COLUMNS,
                found -> new Printed(found.commit(), found.matches(), found.files(), found.fileCount(), found.lines()),
                CommitText::print);
        Pages<CommitsAnswer> pages = Pages.of(
                limit.most(),
                PAGE,
                (cursor, most) -> page(text, cursor, most),
                page -> {
                    page.commits().forEach(print.isSarif() ? found -> print.keep(found(found)) : printer::print);
                    return page.commits().size();
                },
                CommitsAnswer::next);
        print.end(service, "commits", text);
        report(pages.first(), pages.cut());
        return ExitStatus.of(pages.first().counts().commits() > 0);
    }

    private static SarifLog.Found found(CommitsAnswer.Commit found) {
        CommitInfo commit = found.commit();
        return SarifLog.Found.of(
                new Result(commit.repository(), null, commit.id(), null, null, null, commit.summary()));
    }

    private void report(CommitsAnswer answer, boolean cut) {
        CommitsAnswer.Counts counts = answer.counts();
        boolean forPeople = print.isText() && Terminal.isInteractive();
        if (counts.commits() == 0 && forPeople) {
            print.terminal()
                    .line("No such commit among " + Amounts.of(answer.covered().commits(), "commit") + " of "
                            + Amounts.of(answer.index().repositories(), "repository", "repositories") + ".");
        } else {
            String all = (counts.exact() ? "" : "at least ") + Amounts.of(counts.commits(), "commit") + " of "
                    + Amounts.of(counts.repositories(), "repository", "repositories");
            Remarks.tellAmount(print.terminal(), forPeople, all, limit.most(), cut);
        }
        Remarks.tellPast(answer.index(), answer.covered());
        Remarks.tellStopped(answer.stopped(), "Narrow it by repository, date or path.");
    }

    @Override
    public Service.Parameters toKeep() {
        return asked(String.join(" ", texts));
    }

    private Service.Parameters asked(String wanted) {
        Service.Parameters parameters = new Service.Parameters()
                .addGiven("q", wanted)
                .add("word", word)
                .addAll("by", by)
                .addAll("touches", touches)
                .addAll("adds", adds)
                .addAll("removes", removes)
                .addGiven("after", after)
                .addGiven("before", before);
        reading.addTo(parameters);
        scope.addTo(parameters, service);
        return parameters;
    }

    private CommitsAnswer page(String wanted, String cursor, int most) {
        return service.search(
                Service.path("search", "commits"),
                asked(wanted).add("limit", most).addGiven("cursor", cursor),
                CommitsAnswer.class);
    }
}
