package dev.oddbeacon.agents;

import dev.oddbeacon.agents.Asker.Question;
import dev.oddbeacon.api.BlameAnswer;
import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.LogAnswer;
import dev.oddbeacon.api.Outline;
import dev.oddbeacon.api.RepositoryInfo;
import java.util.List;
import java.util.function.Function;

/** One file: its text, what it declares, where its lines come from; and what repositories there are. */
final class Files {
    private static final int MOST_COMMITS = 20;

    private final Asker asker;
    private final Links links;

    Files(Asker asker) {
        this.asker = asker;
        this.links = new Links(asker.console());
    }

    private static Question of(Given given, String what) {
        return Question.of("repositories", given.needed("repository"), what)
                .with("path", given.needed("path"))
                .with("rev", given.text("revision"));
    }

    FileContent content(String repository, String path) {
        return asker.get(Question.of("repositories", repository, "file").with("path", path), FileContent.class);
    }

    String read(Given given) {
        FileContent file = asker.get(of(given, "file"), FileContent.class);
        if (file.text() == null) {
            return "The text of " + file.path() + " is not to be had: " + file.skipped() + ".";
        }
        List<String> lines = file.text().lines().toList();
        int from = given.number("from", 1);
        int to = Math.min(lines.size(), given.number("to", lines.size()));
        if (from < 1 || from > Math.max(1, lines.size()) || to < from - 1) {
            throw new RefusedException(file.path() + " has " + Searches.amount(lines.size(), "line")
                    + "; \"from\" and \"to\" must be among them, the first not behind the last.");
        }
        Budget budget = given.budget();
        budget.say(file.repository() + "/" + file.path() + ", " + Searches.amount(lines.size(), "line") + ", "
                + file.branch() + " at " + file.commit() + "   "
                + links.file(file.repository(), file.path(), file.commit(), from));
        for (int line = from; line <= to; line++) {
            if (!budget.line(line + ": " + lines.get(line - 1))) {
                return budget.say("Lines " + line + " to " + to + " are left out: go on with \"from\": " + line
                                + ", or give more tokens.")
                        .text();
            }
        }
        return budget.text();
    }

    String outline(Given given) {
        Outline outline = asker.get(of(given, "outline").with("uses", true), Outline.class);
        Budget budget = given.budget();
        budget.say(outline.repository() + "/" + outline.path() + " at " + outline.commit() + ": "
                + (outline.language() == null
                        ? "declarations of files of the type " + outline.type() + " are not known."
                        : Searches.amount(outline.total(), "declaration") + "."));
        return told(budget, given, outline.symbols(), symbol -> {
            Long uses = symbol.usesMeant() == null ? symbol.uses() : symbol.usesMeant();
            return "  ".repeat(symbol.depth()) + symbol.line()
                    + (symbol.endLine() > symbol.line() ? "-" + symbol.endLine() : "") + ":" + symbol.column() + " "
                    + symbol.kind() + " " + symbol.signature()
                    + (uses == null ? "" : "   " + Searches.amount(uses, "use"));
        });
    }

    /** Tells what is all there at once, a line each, from where the last answer ended. */
    private static <T> String told(Budget budget, Given given, List<T> all, Function<T, String> line) {
        for (int i = Page.parse(given.text("more")).passed(); i < all.size(); i++) {
            if (!budget.line(line.apply(all.get(i)))) {
                return budget.say("The rest is left out: go on with \"more\": \"" + new Page("", i).written() + "\".")
                        .text();
            }
        }
        return budget.text();
    }

    /** Where a line comes from, and the commits of its file. */
    String history(Given given) {
        int line = given.number("line", 0);
        BlameAnswer blame = asker.get(of(given, "blame"), BlameAnswer.class);
        BlameAnswer.Origin origin = blame.origins().stream()
                .filter(one -> one.fromLine() <= line && line <= one.toLine())
                .findFirst()
                .orElseThrow(() -> new RefusedException(blame.path() + " has no line " + line + "."));
        LogAnswer log = asker.get(of(given, "log").with("limit", MOST_COMMITS), LogAnswer.class);
        Budget budget = given.budget();
        budget.say("Line " + line + " comes from " + blame.repository() + " "
                + Links.id(origin.commit()) + " "
                + origin.authored().toLocalDate() + " " + origin.author().name() + ": " + origin.summary() + "   "
                + links.commit(blame.repository(), origin.commit()));
        budget.say("There it is line " + (origin.line() + line - origin.fromLine()) + " of " + origin.path()
                + (origin.previous() == null
                        ? ", which came with that commit."
                        : "; before it, the file was " + origin.previous().path() + " at "
                                + Links.id(origin.previous().commit()) + "."));
        budget.say("Commits of the file, the newest first:");
        for (LogAnswer.Entry entry : log.entries()) {
            if (!budget.line(Commits.line(links, entry.commit()))) {
                return budget.say("The rest is left out: give more tokens.").text();
            }
        }
        return log.next() == null
                ? budget.text()
                : budget.say("There are more; search_commits with \"touches\" finds them.")
                        .text();
    }

    String repositories(Given given) {
        RepositoryInfo[] all = asker.get(Question.of("repositories"), RepositoryInfo[].class);
        Budget budget = given.budget();
        budget.say(all.length + (all.length == 1 ? " repository." : " repositories."));
        return told(budget, given, List.of(all), one -> {
            String branches = String.join(
                    ", ",
                    one.branches().stream().map(RepositoryInfo.Branch::name).toList());
            long lines =
                    one.branches().isEmpty() ? 0 : one.branches().getFirst().lines();
            return one.name() + (one.title() == null ? "" : ": " + one.title()) + "; " + one.state() + "; branches "
                    + branches + "; " + lines + " lines"
                    + (one.labels().isEmpty() ? "" : "; " + String.join(", ", one.labels()));
        });
    }
}
