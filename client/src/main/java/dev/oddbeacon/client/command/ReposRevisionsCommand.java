package dev.oddbeacon.client.command;

import dev.oddbeacon.api.RevisionsAnswer;
import dev.oddbeacon.api.RevisionsAnswer.Revision;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
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

/** {@code oddbeacon repos revisions}. */
@Command(
        name = "revisions",
        mixinStandardHelpOptions = true,
        description =
                "Lists the branches and tags of a repository, the latest first, and which of them can be searched. Files and differences of the others can be shown.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon repos revisions tidewatch",
            "  oddbeacon repos revisions tidewatch v2 --not-indexed"
        })
public final class ReposRevisionsCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "NAME")
    private String name;

    @Parameters(
            index = "1..*",
            paramLabel = "WORD",
            arity = "0..*",
            description = "Only those whose name holds each of these.")
    private List<String> words = new ArrayList<>();

    @Option(names = "--not-indexed", description = "Only those that cannot be searched.")
    private boolean notIndexed;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    private Columns<Revision> columns() {
        return new Columns<Revision>()
                .add("repository", _ -> name)
                .add("name", Revision::name)
                .add("kind", Revision::kind)
                .add("commit", Revision::commit)
                .add("committed", Revision::committed)
                .add("author", Revision::author)
                .add("summary", Revision::summary)
                .add("indexed", Revision::indexed);
    }

    @Override
    public Integer call() {
        RevisionsAnswer answer = service.get(
                Service.path("repositories", name, "revisions"),
                new Service.Parameters().add("q", String.join(" ", words)),
                RevisionsAnswer.class);
        List<Revision> shown = answer.revisions().stream()
                .filter(revision -> !notIndexed || !revision.indexed())
                .toList();
        shown.forEach(print.printer(columns(), ReposRevisionsCommand::print)::print);
        if (answer.total() > answer.revisions().size()) {
            Terminal.complain("the latest " + answer.revisions().size() + " of " + answer.total()
                    + " branches and tags were looked at; name some letters of the one that you mean.");
        } else if (shown.isEmpty()) {
            Terminal.complain("no branch or tag is like that.");
        }
        return ExitStatus.of(!shown.isEmpty());
    }

    private static void print(Terminal terminal, Revision revision) {
        String about = String.format(
                "  %-6s  %s  %s  ",
                revision.kind(),
                revision.committed().toString().substring(0, "2026-01-31".length()),
                Terminal.shortened(revision.commit()));
        terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(revision.name()))
                + terminal.styled(Terminal.Style.QUIET, about)
                + Terminal.clean(revision.summary())
                + (revision.indexed() ? "" : terminal.styled(Terminal.Style.QUIET, "  (not indexed)")));
    }
}
