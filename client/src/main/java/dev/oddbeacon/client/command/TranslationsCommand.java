package dev.oddbeacon.client.command;

import dev.oddbeacon.api.TranslationsAnswer;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** {@code oddbeacon translations}. */
@Command(
        name = "translations",
        mixinStandardHelpOptions = true,
        description = "Prints a text of the interface in all languages, and the code that shows it.%n",
        footer = {
            "",
            "The files of the other languages are those whose paths differ in the name of the",
            "language alone: translations/de/tickets.json, messages_pt_BR.properties.",
            "",
            "Examples:",
            "  oddbeacon translations passenger-app:src/translations/de/tickets.json:3"
        })
public final class TranslationsCommand implements Callable<Integer> {
    @Parameters(paramLabel = "REPO:PATH:LINE", description = "The line of the text, in any of its languages.")
    private String place;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    /** @param language "code" of what shows the text */
    private record Found(String language, String repository, String path, int line, String text) {}

    private static Columns<Found> columns() {
        return new Columns<Found>()
                .add("language", Found::language)
                .add("repository", Found::repository)
                .add("path", Found::path)
                .add("line", Found::line)
                .add("text", Found::text);
    }

    @Override
    public Integer call() {
        int colon = place.lastIndexOf(':');
        String line = place.substring(colon + 1);
        if (colon <= 0 || !line.matches("[1-9]\\d{0,8}")) {
            throw new ServiceProblem(
                    "\"" + place
                            + "\" names no line. Write REPO:PATH:LINE, for example passenger-app:src/translations/de/tickets.json:3.",
                    ExitStatus.WRONG);
        }
        FileName file = FileName.parse(place.substring(0, colon), null);
        TranslationsAnswer answer = service.get(
                Service.path("repositories", file.repository(), "translations"),
                new Service.Parameters()
                        .add("path", file.path())
                        .add("line", line)
                        .add("rev", file.revision()),
                TranslationsAnswer.class);
        Stream.concat(
                        answer.languages().stream()
                                .map(one -> new Found(
                                        one.language(), answer.repository(), one.path(), one.line(), one.text())),
                        answer.uses().stream()
                                .map(use -> new Found("code", use.repository(), use.path(), use.line(), use.text())))
                .forEach(print.printer(columns(), TranslationsCommand::print)::print);
        if (answer.uses().isEmpty()) {
            Terminal.complain("No code names " + answer.key() + ", as far as it is written as a whole.");
        } else if (answer.usesTotal() > answer.uses().size() || !answer.exact()) {
            Terminal.complain("More code names " + answer.form() + ": oddbeacon lines --case match --word \""
                    + answer.form() + "\" finds all of it.");
        }
        return ExitStatus.of(true);
    }

    private static void print(Terminal terminal, Found found) {
        terminal.line(Terminal.clean(found.language()) + "\t" + Terminal.clean(found.repository()) + "/"
                + terminal.styled(Terminal.Style.PATH, Terminal.clean(found.path())) + ":" + found.line() + ": "
                + Terminal.clean(found.text()));
    }
}
