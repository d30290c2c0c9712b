package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Comparison;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.SearchCheck;
import dev.oddbeacon.client.ClientMain;
import dev.oddbeacon.client.output.ResultText;
import dev.oddbeacon.client.output.SarifLog;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.RepositoryAddresses;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description =
                "Tells what has come that a saved search finds, and what has gone. The exit status is 4 if anything has come, for pipelines; 0 otherwise. Lines that only moved are the same ones.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon searches check asks-tidewatch --compared-with 2026-01-01",
            "  oddbeacon searches check asks-tidewatch --format sarif > asks-tidewatch.sarif"
        })
final class SearchesCheckCommand implements Callable<Integer> {
    /** How what has come is told. */
    enum Format {
        TEXT,
        JSONL,
        SARIF
    }

    /** A line of JSON. */
    record Changed(String change, Result result) {}

    @Mixin
    private MeantSearch meant;

    @Option(
            names = "--compared-with",
            paramLabel = "DAY|CHECK",
            description =
                    "A day (2026-01-31, 2w for two weeks ago), or a check that was kept. Without it, all that is found has come.")
    private String with;

    @Option(
            names = "--compared-with-file",
            paramLabel = "FILE|-",
            description = "JSON lines, as searches export --results writes them.")
    private String file;

    @Option(names = "--keep", paramLabel = "CHECK", description = "Keep what is found now, under this name.")
    private String keep;

    @Option(names = "--replace", description = "Replace a check of that name.")
    private boolean replace;

    @Option(
            names = "--format",
            paramLabel = "text|jsonl|sarif",
            defaultValue = "text",
            description = "sarif: SARIF 2.1.0 of what has come (default: ${DEFAULT-VALUE}).")
    private Format format;

    @Option(
            names = "--color",
            paramLabel = "auto|always|never",
            defaultValue = "auto",
            description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        if (with != null && file != null) {
            throw new ServiceProblem("Compare with a day or a check, or with a file, not with both.", ExitStatus.WRONG);
        }
        SavedSearch search = meant.in(service);
        Service.Parameters whose = new Service.Parameters().add("of", search.of());
        String path = SearchesCommand.path(search.name(), "comparison");
        Comparison comparison = file != null
                ? service.postText(path + whose, "application/jsonl", FileText.read(file), Comparison.class)
                : service.get(path, whose.addGiven("with", with), Comparison.class);
        Terminal terminal = new Terminal(color);
        switch (format) {
            case TEXT -> print(terminal, comparison);
            case JSONL -> {
                comparison.came().forEach(result -> printJson(terminal, "came", result));
                Optional.ofNullable(comparison.went())
                        .orElse(List.of())
                        .forEach(result -> printJson(terminal, "went", result));
            }
            case SARIF ->
                terminal.line(Service.JSON
                        .writerWithDefaultPrettyPrinter()
                        .writeValueAsString(SarifLog.of(
                                ClientMain.version().orElse("0"),
                                new SarifLog.Looked(
                                        search.name(),
                                        search.description().isEmpty()
                                                ? "Something new matches the saved search " + search.name()
                                                : search.description(),
                                        true),
                                comparison.came().stream()
                                        .map(SarifLog.Found::of)
                                        .toList(),
                                new RepositoryAddresses(service)::of)));
        }
        if (comparison.cameCount() > comparison.came().size()) {
            Terminal.complain("only the first " + comparison.came().size() + " of " + comparison.cameCount()
                    + " that have come are told");
        }
        if (!comparison.complete()) {
            Terminal.complain("not all repositories are indexed yet; more may come");
        }
        if (keep != null) {
            service.put(
                    SearchesCommand.path(search.name(), "checks", keep)
                            + new Service.Parameters().add("of", search.of()).add("replace", replace),
                    null,
                    SearchCheck.class);
        }
        return comparison.cameCount() > 0 ? ExitStatus.TO_ACT_ON : ExitStatus.FOUND;
    }

    private void print(Terminal terminal, Comparison comparison) {
        comparison.came().forEach(result -> ResultText.print(terminal, "+ ", result));
        List<Result> went = Optional.ofNullable(comparison.went()).orElse(List.of());
        went.forEach(result -> ResultText.print(terminal, "- ", result));
        List<String> parts = new ArrayList<>();
        parts.add(comparison.cameCount() + " came");
        if (comparison.went() != null) {
            parts.add(comparison.wentCount() + " went");
        }
        parts.add(comparison.found() + " found now");
        String since = file != null ? " since " + file : with == null ? "" : " since " + with;
        Terminal.complain(String.join(", ", parts) + since);
    }

    private static void printJson(Terminal terminal, String change, Result result) {
        terminal.line(Service.JSON.writeValueAsString(new Changed(change, result)));
    }
}
