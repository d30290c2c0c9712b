package dev.oddbeacon.agents;

import java.util.List;

/** The tools: few, each for one question. */
final class Tools {
    private Tools() {}

    static final List<Tool> ALL = List.of(
            new Tool(
                    "search_lines",
                    "Search lines",
                    "Finds lines of code, comments and documents that hold a text, in all repositories or some, the likeliest files first. The text is taken literally unless \"reading\" says otherwise; counts are exact. Use it for texts and constants; search_symbols finds declarations of a name, uses finds what uses it.",
                    new Inputs()
                            .text("text", "What the lines hold.")
                            .oneOf(
                                    "reading",
                                    "How text is read: plain (the default), regex (RE2, within a line), or expression: words, \"phrases\" and clauses such as near(8, a, b), under(src), joined by and, or, not.",
                                    "plain",
                                    "regex",
                                    "expression")
                            .oneOf(
                                    "case",
                                    "Whether case counts: auto (the default) if the text has a capital.",
                                    "auto",
                                    "match",
                                    "ignore")
                            .number("context", "Lines around each that is found (0).", 0, 10)
                            .scope()
                            .budget()
                            .required("text"),
                    (asker, given) -> new Searches(asker).lines(given)),
            new Tool(
                    "search_files",
                    "Search files",
                    "Finds files by parts of their paths, in any order; without a text all files of the scope.",
                    new Inputs()
                            .text("text", "Parts of the path: planner java.")
                            .oneOf(
                                    "reading",
                                    "fragments (the default), plain, glob or regex.",
                                    "fragments",
                                    "plain",
                                    "glob",
                                    "regex")
                            .scope()
                            .budget(),
                    (asker, given) -> new Searches(asker).files(given)),
            new Tool(
                    "search_symbols",
                    "Search declarations",
                    "Finds where functions, types, fields and other symbols are declared, by their name or parts of it and of what they stand in: berth assign.",
                    new Inputs()
                            .text("name", "The name, or parts of it.")
                            .oneOf(
                                    "reading",
                                    "fragments (the default) or plain: the whole name, as in Berth.assign.",
                                    "fragments",
                                    "plain")
                            .texts(
                                    "kinds",
                                    "Only these kinds: class, interface, function, method, field, constant, key.")
                            .scope()
                            .budget()
                            .required("name"),
                    (asker, given) -> new Searches(asker).symbols(given)),
            new Tool(
                    "uses",
                    "Find uses",
                    "Finds where a symbol is used, in all repositories. By a place, REPOSITORY/PATH:LINE:COLUMN as search_symbols and outline tell it, uses are told as sure or likely, with those of what it overrides and what overrides it; by a name, all uses of the name.",
                    new Inputs()
                            .text("of", "A place where it is declared or used, or its name.")
                            .scope()
                            .budget()
                            .required("of"),
                    (asker, given) -> new Searches(asker).uses(given)),
            new Tool(
                    "search_commits",
                    "Search commits",
                    "Finds commits by their message or people, by files that they touch, and by lines that they add or remove; the newest first. Use it for why and when something changed.",
                    new Inputs()
                            .text("text", "Parts of the message or of a person's name.")
                            .text("by", "Author or committer.")
                            .texts("touches", "Globs for files or folders that they changed.")
                            .text("adds", "Text of a line that they added.")
                            .text("removes", "Text of a line that they removed.")
                            .text("after", "Committed from that day on: 2026-01-31, 2026-01, or 2w for two weeks ago.")
                            .text("before", "Committed before that day.")
                            .texts("repositories", "Only these. All that may be seen, if absent.")
                            .budget(),
                    (asker, given) -> new Searches(asker).commits(given)),
            new Tool(
                    "read_file",
                    "Read a file",
                    "Reads lines of a file with their numbers. Ask for a range rather than for a long file.",
                    file().number("from", "The first line (1).", 1, 10_000_000)
                            .number("to", "The last line (that of the file).", 0, 10_000_000)
                            .number(
                                    "tokens",
                                    "Most tokens of the answer (" + Budget.DEFAULT + ").",
                                    Budget.LEAST,
                                    Budget.MOST),
                    (asker, given) -> new Files(asker).read(given)),
            new Tool(
                    "outline",
                    "Outline of a file",
                    "Tells what a file declares, with lines, columns, signatures and how often each is used. Cheaper than reading the file.",
                    file().budget(),
                    (asker, given) -> new Files(asker).outline(given)),
            new Tool(
                    "line_history",
                    "History of a line",
                    "Tells which commit a line comes from, and the last commits of its file.",
                    file().number("line", "The line, from 1.", 1, 10_000_000)
                            .number(
                                    "tokens",
                                    "Most tokens of the answer (" + Budget.DEFAULT + ").",
                                    Budget.LEAST,
                                    Budget.MOST)
                            .required("repository", "path", "line"),
                    (asker, given) -> new Files(asker).history(given)),
            new Tool(
                    "repositories",
                    "List repositories",
                    "Lists the repositories that may be searched, with their branches and labels.",
                    new Inputs().budget(),
                    (asker, given) -> new Files(asker).repositories(given)));

    private static Inputs file() {
        return new Inputs()
                .text("repository", "Its name.")
                .text("path", "From the root of the repository.")
                .text("revision", "A branch, tag or commit; the default branch if absent.")
                .required("repository", "path");
    }
}
