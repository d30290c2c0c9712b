package dev.oddbeacon.client.command;

import dev.oddbeacon.api.CounterpartsAnswer;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.options.IndexedFile;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code oddbeacon counterpart}. */
@Command(
        name = "counterpart",
        mixinStandardHelpOptions = true,
        description =
                "Prints the tests of a file, or what a test tests: by their names, and if none is named so, the likeliest.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon counterpart fare-gate:internal/ticket/ticket.go",
            "  oddbeacon counterpart tidewatch:tests/test_surge.py --format csv"
        })
public final class CounterpartCommand implements Callable<Integer> {
    @Mixin
    private IndexedFile file;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    /** @param how by its name, or as the likeliest */
    private record Counterpart(String repository, String path, String how) {}

    private static Columns<Counterpart> columns() {
        return new Columns<Counterpart>()
                .add("repository", Counterpart::repository)
                .add("path", Counterpart::path)
                .add("how", Counterpart::how);
    }

    @Override
    public Integer call() {
        FileName name = file.name();
        CounterpartsAnswer answer = service.get(
                Service.path("repositories", name.repository(), "counterparts"),
                new Service.Parameters().add("path", name.path()).add("rev", name.revision()),
                CounterpartsAnswer.class);
        Stream.concat(
                        answer.byConvention().stream().map(path -> new Counterpart(name.repository(), path, "name")),
                        answer.candidates().stream().map(path -> new Counterpart(name.repository(), path, "likeliest")))
                .forEach(print.printer(columns(), CounterpartCommand::print)::print);
        if (answer.byConvention().isEmpty()) {
            String wanted = answer.test() ? "no file is named as what it tests" : "no file is named as its test";
            Terminal.complain(answer.candidates().isEmpty() ? wanted + "." : wanted + "; these are the likeliest.");
        }
        return ExitStatus.of(!answer.byConvention().isEmpty());
    }

    private static void print(Terminal terminal, Counterpart found) {
        terminal.line(Terminal.clean(found.repository()) + ":"
                + terminal.styled(Terminal.Style.PATH, Terminal.clean(found.path())));
    }
}
