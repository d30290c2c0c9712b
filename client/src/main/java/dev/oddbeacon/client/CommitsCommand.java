package dev.oddbeacon.client;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer.Match;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code oddbeacon commits}. */
@Command(name = "commits", mixinStandardHelpOptions = true, description = "Finds commits of all repositories, the newest first.%n",
        footer = {"", "Examples:", "  oddbeacon commits surge threshold", "  oddbeacon commits --by marta --after 2w", "  oddbeacon commits --adds MOORING_BUFFER --repo berth-planner",
            "  oddbeacon commits --expression 'removes(/old-.*-host/) touches(*.yaml)'"})
final class CommitsCommand implements Callable<Integer> {
    private static final int PAGE = 500;

    @Parameters(paramLabel = "TEXT", arity = "0..*", description = "Words of the message, or of the people, in any order. Without any, all commits.")
    private String[] texts = {};

    @Option(names = "--plain", description = "TEXT stands so in the message.")
    private boolean plain;

    @Option(names = "--regex", description = "TEXT is a regular expression in RE2 syntax.")
    private boolean regex;

    @Option(names = "--glob", description = "TEXT is words with * and ? for other characters.")
    private boolean glob;

    @Option(names = "--expression", description = "TEXT is words and clauses: says(berth) not by(bot), adds(/x|y/), touches(src).")
    private boolean expression;

    @Option(names = "--case", paramLabel = "auto|match|ignore", defaultValue = "auto", description = "Whether case counts (default: ${DEFAULT-VALUE}).")
    private ReadingOptions.CaseMode caseMode;

    @Option(names = "--word", description = "Only whole words.")
    private boolean word;

    @Option(names = "--by", paramLabel = "PERSON", description = "Written or committed by somebody of such a name or address.")
    private List<String> by = new ArrayList<>();

    @Option(names = "--touches", paramLabel = "GLOB", description = "That changed such a folder or file.")
    private List<String> touches = new ArrayList<>();

    @Option(names = "--adds", paramLabel = "TEXT", description = "That added a line with this text.")
    private List<String> adds = new ArrayList<>();

    @Option(names = "--removes", paramLabel = "TEXT", description = "That removed a line with this text.")
    private List<String> removes = new ArrayList<>();

    @Option(names = "--after", paramLabel = "DAY", description = "Committed on that day or later: 2026-01-31, 2026-01, 2026, or 2w for two weeks ago.")
    private String after = "";

    @Option(names = "--before", paramLabel = "DAY", description = "Committed before that day.")
    private String before = "";

    @Mixin
    private ScopeOptions scope;

    @Option(names = "--limit", paramLabel = "N|all", defaultValue = "50", converter = Limit.Converter.class, description = "Most commits to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Option(names = "--format", paramLabel = "text|jsonl|csv", defaultValue = "text", description = "jsonl: a JSON object for each commit; csv: a record (default: ${DEFAULT-VALUE}).")
    private ResultFormat format;

    @Option(names = "--color", paramLabel = "auto|always|never", defaultValue = "auto", description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    /** A commit as a JSON object. */
    record Printed(@JsonUnwrapped CommitInfo commit, List<Match> matches, List<CommitInfo.ChangedFile> files, int fileCount, List<CommitsAnswer.Line> lines) {}

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
            terminal.line(CsvHits.row("repository", "commit", "authored", "author", "address", "files", "added", "removed", "summary"));
        }
        long left = limit.most();
        String cursor = "";
        CommitsAnswer first = null;
        do {
            CommitsAnswer page = page(text, reading, cursor, (int) Math.min(left, PAGE));
            first = first == null ? page : first;
            page.commits().forEach(commit -> print(terminal, commit));
            left -= page.commits().size();
            cursor = page.next();
        } while (cursor != null && left > 0);
        report(terminal, first, cursor != null);
        return first.counts().commits() > 0 ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }

    private void print(Terminal terminal, CommitsAnswer.Commit found) {
        CommitInfo commit = found.commit();
        switch (format) {
            case JSONL -> terminal.line(Service.JSON.writeValueAsString(new Printed(commit, found.matches(), found.files(), found.fileCount(), found.lines())));
            case CSV -> terminal.line(CsvHits.row(commit.repository(), commit.id(), commit.authored().toString(), commit.author().name(), commit.author().email(), String.valueOf(found.fileCount()),
                    String.valueOf(found.files().stream().mapToInt(CommitInfo.ChangedFile::added).sum()), String.valueOf(found.files().stream().mapToInt(CommitInfo.ChangedFile::removed).sum()), commit.summary()));
            case TEXT -> CommitText.print(terminal, found);
        }
    }

    private void report(Terminal terminal, CommitsAnswer answer, boolean cut) {
        String all = (answer.counts().exact() ? "" : "at least ") + Amounts.of(answer.counts().commits(), "commit") + " of " + Amounts.of(answer.counts().repositories(), "repository", "repositories");
        if (answer.counts().commits() == 0 && Terminal.isInteractive() && format == ResultFormat.TEXT) {
            terminal.line("No such commit among " + Amounts.of(answer.covered().commits(), "commit") + " of " + Amounts.of(answer.index().repositories(), "repository", "repositories") + ".");
        } else if (Terminal.isInteractive() && format == ResultFormat.TEXT) {
            terminal.line(all + (cut ? "; the first " + limit.most() + " are shown, --limit all shows every one." : "."));
        } else if (cut) {
            Terminal.complain("the first " + limit.most() + " of " + all + "; --limit all prints every one.");
        }
        tellCovered(answer.index().complete(), answer.index().indexing(), answer.index().repositories(), answer.covered());
        if (answer.stopped() != null) {
            Terminal.complain("not complete: the search took too much " + answer.stopped() + " and was stopped. Narrow it by repository, date or path.");
        }
    }

    /** What of the past was not searched. */
    static void tellCovered(boolean complete, int reading, int repositories, CommitsAnswer.Covered covered) {
        if (!complete) {
            Terminal.complain("not complete: the past of " + reading + " of " + repositories + " repositories is not read to its end.");
        }
        if (covered.cut() > 0) {
            Terminal.complain("the past is cut at " + Amounts.of(covered.cut(), "commit") + " whose parents are not there.");
        }
        if (covered.withoutLines() > 0) {
            Terminal.complain("of " + Amounts.of(covered.withoutLines(), "commit") + " the changed lines are too many to be searched.");
        }
    }

    private CommitsAnswer page(String text, String reading, String cursor, int most) {
        Service.Parameters parameters = new Service.Parameters().add("q", text).add("reading", reading).add("case", caseMode.name().toLowerCase(Locale.ROOT)).add("word", word).addAll("by", by)
                .addAll("touches", touches).addAll("adds", adds).addAll("removes", removes).add("limit", most);
        if (!after.isEmpty()) {
            parameters.add("after", after);
        }
        if (!before.isEmpty()) {
            parameters.add("before", before);
        }
        if (!cursor.isEmpty()) {
            parameters.add("cursor", cursor);
        }
        scope.addTo(parameters, service);
        return service.search(Service.path("search", "commits"), parameters, CommitsAnswer.class);
    }
}
