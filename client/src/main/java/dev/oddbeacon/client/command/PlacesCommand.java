package dev.oddbeacon.client.command;

import dev.oddbeacon.api.PlacesAnswer;
import dev.oddbeacon.client.options.OpenOptions;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.function.Function;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "places",
        mixinStandardHelpOptions = true,
        description = "Finds the places that a build log, a stack trace or any list of file:line:column names.%n",
        footer = {
            "",
            "Prints repository/path:line:column: and what the log says there, a place a line, so that an editor steps through them.",
            "",
            "Examples:",
            "  oddbeacon places build.log",
            "  make 2>&1 | oddbeacon places --here -",
            "  oddbeacon places --repo berth-planner trace.txt"
        })
public final class PlacesCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE|-", defaultValue = "-", description = "The text; without FILE, standard input.")
    private String source;

    @Option(names = "--all", description = "Also the places of which the index has no file, as they stand.")
    private boolean all;

    @Mixin
    private PrintOptions print;

    @Mixin
    private ScopeOptions scope;

    @Mixin
    private OpenOptions open;

    @Mixin
    private Service service;

    private static final Columns<PlacesAnswer.Place> COLUMNS = new Columns<PlacesAnswer.Place>()
            .add("repository", ofFile(PlacesAnswer.File::repository))
            .add("branch", ofFile(PlacesAnswer.File::branch))
            .add("commit", ofFile(PlacesAnswer.File::commit))
            .add("path", ofFile(PlacesAnswer.File::path))
            .add("line", PlacesAnswer.Place::line)
            .add("column", PlacesAnswer.Place::column)
            .add("named", PlacesAnswer.Place::named)
            .add("text", PlacesAnswer.Place::text);

    /** The likeliest file in words, or nothing if the index has none. */
    private static Function<PlacesAnswer.Place, Object> ofFile(Function<PlacesAnswer.File, ?> value) {
        return place ->
                place.files().isEmpty() ? null : value.apply(place.files().getFirst());
    }

    @Override
    public Integer call() {
        Service.Parameters parameters = new Service.Parameters();
        scope.addTo(parameters, service);
        PlacesAnswer answer = service.postText(
                Service.path("places") + parameters, "text/plain;charset=UTF-8", text(), PlacesAnswer.class);
        Names names = scope.names(service);
        answer.places().stream()
                .filter(place -> all || !place.files().isEmpty())
                .forEach(print.printer(COLUMNS, (terminal, place) -> print(terminal, names, place))::print);
        int lost = answer.places().size() - answer.matched();
        if (answer.places().isEmpty()) {
            Terminal.complain("the text names no places: no file:line, no path(line), no \"path\", line n.");
        } else if (lost > 0 && !all) {
            Terminal.complain(
                    Amounts.of(lost, "place") + " in files that the index does not have; --all prints them as well.");
        }
        if (answer.more()) {
            Terminal.complain("the text names more places than the first "
                    + Amounts.number(answer.places().size()) + ", which are printed.");
        }
        open.open(
                names,
                service,
                answer.places().stream()
                        .filter(place -> !place.files().isEmpty())
                        .map(place -> new OpenOptions.Target(
                                place.files().getFirst().repository(),
                                place.files().getFirst().path(),
                                place.line(),
                                place.column()))
                        .toList());
        return ExitStatus.of(answer.matched() > 0);
    }

    private static void print(Terminal terminal, Names names, PlacesAnswer.Place place) {
        String path = place.files().isEmpty()
                ? place.named()
                : names.of(
                        place.files().getFirst().repository(),
                        place.files().getFirst().path());
        String doubt = place.files().isEmpty()
                ? "   (not in the index)"
                : place.guess()
                        ? "   (by its name alone)"
                        : place.files().size() > 1
                                ? "   (or " + Amounts.of(place.files().size() - 1, "other file", "other files") + ")"
                                : "";
        terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(path)) + ":" + place.line() + ":"
                + Math.max(1, place.column()) + ": "
                + Terminal.clean(place.text().strip()) + terminal.styled(Terminal.Style.QUIET, doubt));
    }

    private String text() {
        try {
            return new String(
                    source.equals("-") ? System.in.readAllBytes() : Files.readAllBytes(Path.of(source)),
                    StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new ServiceProblem(
                    source + " could not be read. Name a file, or - for standard input.", ExitStatus.WRONG);
        }
    }
}
