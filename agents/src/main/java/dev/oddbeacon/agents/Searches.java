package dev.oddbeacon.agents;

import dev.oddbeacon.agents.Asker.Question;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.SymbolsAnswer;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiPredicate;
import java.util.function.Function;

/** The four searches: their answers as text, within a budget, and how to go on. */
final class Searches {
    private static final int PAGE = 50;

    private final Asker asker;
    private final Links links;

    Searches(Asker asker) {
        this.asker = asker;
        this.links = new Links(asker.console());
    }

    private static Question scoped(Question question, Given given) {
        return question.withAll("repo", given.texts("repositories"))
                .withAll("under", given.texts("under"))
                .withAll("notUnder", given.texts("not_under"))
                .withAll("type", given.texts("types"));
    }

    /** A result that may be told: of lines, a line of a file. */
    private record LineOf(LinesAnswer.FileHits file, LinesAnswer.Line line) {}

    String lines(Given given) {
        int context = given.number("context", 0);
        String[] last = {""};
        return told(
                given,
                cursor -> asker.get(
                        scoped(Question.of("search", "lines"), given)
                                .with("q", given.needed("text"))
                                .with("reading", given.text("reading"))
                                .with("case", given.text("case"))
                                .with("word", given.values().get("word"))
                                .with("context", context)
                                .with("order", "relevance")
                                .with("limit", PAGE)
                                .with("cursor", cursor),
                        LinesAnswer.class),
                LinesAnswer::next,
                answer -> amount(
                                answer.counts().hits(),
                                "line",
                                answer.counts().files(),
                                answer.counts().exact())
                        + incomplete(answer.index(), answer.stopped()),
                answer -> {
                    List<LineOf> lines = new ArrayList<>();
                    answer.files()
                            .forEach(file -> file.excerpts()
                                    .forEach(excerpt ->
                                            excerpt.lines().forEach(line -> lines.add(new LineOf(file, line)))));
                    return lines;
                },
                (one, budget) -> {
                    LinesAnswer.FileHits file = one.file();
                    String heading = file.repository() + "/" + file.path() + "   "
                            + links.file(
                                    file.repository(),
                                    file.path(),
                                    file.commit(),
                                    one.line().number());
                    if (!last[0].equals(file.repository() + "/" + file.path()) && !budget.line(heading)) {
                        return false;
                    }
                    last[0] = file.repository() + "/" + file.path();
                    return budget.line((one.line().matches().isEmpty() ? "  " : "> ")
                            + one.line().number() + ": " + one.line().text());
                });
    }

    String files(Given given) {
        return told(
                given,
                cursor -> asker.get(
                        scoped(Question.of("search", "files"), given)
                                .with("q", given.text("text"))
                                .with("reading", given.text("reading"))
                                .with("limit", PAGE)
                                .with("cursor", cursor),
                        FilesAnswer.class),
                FilesAnswer::next,
                answer -> amount(
                                answer.counts().files(),
                                "file",
                                0,
                                answer.counts().exact())
                        + incomplete(answer.index(), null),
                FilesAnswer::files,
                (file, budget) -> budget.line(file.repository() + "/" + file.path() + "   "
                        + amount(file.lines(), "line") + ", " + file.type()
                        + (file.traits().isEmpty() ? "" : ", " + String.join(", ", file.traits()))));
    }

    String symbols(Given given) {
        return symbols(
                given,
                Question.of("search", "symbols")
                        .with("q", given.needed("name"))
                        .with("reading", given.text("reading"))
                        .withAll("kind", given.texts("kinds"))
                        .with("role", "declaration"));
    }

    /** Uses of what stands at a place, or of a name. */
    String uses(Given given) {
        String of = given.needed("of");
        boolean isPlace = of.chars().filter(c -> c == ':').count() >= 2;
        Question question = Question.of("search", "symbols").with("role", "use").with("family", isPlace ? true : null);
        return symbols(
                given,
                isPlace ? question.with("of", of) : question.with("q", of).with("reading", "plain"));
    }

    private String symbols(Given given, Question asked) {
        return told(
                given,
                cursor -> asker.get(
                        scoped(new Question(asked.path(), new ArrayList<>(asked.parameters())), given)
                                .with("limit", PAGE)
                                .with("cursor", cursor),
                        SymbolsAnswer.class),
                SymbolsAnswer::next,
                answer -> amount(
                                answer.counts().symbols(),
                                "place",
                                answer.counts().files(),
                                answer.counts().exact())
                        + incomplete(answer.index(), answer.stopped()),
                SymbolsAnswer::symbols,
                (symbol, budget) -> budget.line(symbol.repository() + "/" + symbol.path() + ":" + symbol.line() + ":"
                        + symbol.column() + "   "
                        + (symbol.kind() == null
                                ? (symbol.certainty() == null ? "" : symbol.certainty() + "   ")
                                        + symbol.text().strip()
                                : symbol.kind()
                                        + (symbol.container().isEmpty() ? "" : " of " + symbol.container())
                                        + "   " + symbol.signature())));
    }

    String commits(Given given) {
        return told(
                given,
                cursor -> asker.get(
                        Question.of("search", "commits")
                                .withAll("repo", given.texts("repositories"))
                                .with("q", given.text("text"))
                                .with("by", given.text("by"))
                                .withAll("touches", given.texts("touches"))
                                .with("adds", given.text("adds"))
                                .with("removes", given.text("removes"))
                                .with("after", given.text("after"))
                                .with("before", given.text("before"))
                                .with("limit", PAGE)
                                .with("cursor", cursor),
                        CommitsAnswer.class),
                CommitsAnswer::next,
                answer -> amount(
                                answer.counts().commits(),
                                "commit",
                                0,
                                answer.counts().exact())
                        + incomplete(answer.index(), answer.stopped()),
                CommitsAnswer::commits,
                (commit, budget) -> budget.line(Commits.line(links, commit.commit())
                        + (commit.fileCount() == 0
                                ? ""
                                : "\n  " + amount(commit.fileCount(), "file") + ": "
                                        + String.join(
                                                ", ",
                                                commit.files().stream()
                                                        .limit(5)
                                                        .map(file -> file.path())
                                                        .toList()))));
    }

    /** Tells pages of results until the budget is spent. */
    private static <P, R> String told(
            Given given,
            Function<String, P> ask,
            Function<P, String> next,
            Function<P, String> heading,
            Function<P, List<R>> results,
            BiPredicate<R, Budget> tell) {
        Budget budget = given.budget();
        Page page = Page.parse(given.text("more"));
        boolean isFirst = true;
        while (true) {
            P answer = ask.apply(page.cursor());
            if (isFirst) {
                budget.say(heading.apply(answer));
                isFirst = false;
            }
            List<R> all = results.apply(answer);
            for (int i = page.passed(); i < all.size(); i++) {
                if (!tell.test(all.get(i), budget)) {
                    return budget.say("The rest is left out: give more tokens, or go on with \"more\": \""
                                    + new Page(page.cursor(), i).written() + "\".")
                            .text();
                }
            }
            String cursor = next.apply(answer);
            if (cursor == null) {
                return budget.text();
            }
            page = new Page(cursor, 0);
        }
    }

    private static String amount(long count, String noun, long files, boolean isExact) {
        return (isExact ? "" : "At least ") + amount(count, noun) + (files > 0 ? " in " + amount(files, "file") : "")
                + ".";
    }

    static String amount(long count, String noun) {
        return count + " " + noun + (count == 1 ? "" : "s");
    }

    private static String incomplete(LinesAnswer.IndexState index, String stopped) {
        return (index.complete()
                        ? ""
                        : " Not complete: " + index.indexing() + " of " + index.repositories()
                                + " repositories are not indexed, or not as they are now.")
                + (stopped == null ? "" : " Not complete: the search took too much " + stopped + "; narrow it.");
    }
}
