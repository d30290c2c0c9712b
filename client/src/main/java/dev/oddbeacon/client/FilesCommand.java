package dev.oddbeacon.client;

import dev.oddbeacon.api.FilesAnswer;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(name = "files", mixinStandardHelpOptions = true, description = "Finds files by their path; those that are skipped by searches for lines as well.%n",
        footer = {"", "Examples:", "  oddbeacon files ticket test", "  oddbeacon files --repo hull-telemetry .h"})
final class FilesCommand implements Callable<Integer> {
    @Parameters(paramLabel = "TEXT", arity = "0..*", description = "Fragments of the path, in any order; each must occur. Without one: all files.")
    private String[] fragments = {};

    @Mixin
    private ScopeOptions scope;

    @Option(names = "--limit", paramLabel = "N", defaultValue = "100", description = "Most files to print, 1 to 1000 (default: ${DEFAULT-VALUE}).")
    private int limit;

    @Option(names = "--format", paramLabel = "text|jsonl", defaultValue = "text", description = "jsonl: a JSON object for each file (default: ${DEFAULT-VALUE}).")
    private OutputFormat format;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        Service.Parameters parameters = new Service.Parameters().add("q", String.join(" ", fragments)).add("limit", limit);
        scope.addTo(parameters);
        FilesAnswer answer = service.get(Service.path("search", "files"), parameters, FilesAnswer.class);
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        for (FilesAnswer.File file : answer.files()) {
            terminal.line(format == OutputFormat.JSONL ? Service.JSON.writeValueAsString(file)
                    : Terminal.clean(file.repository() + "/" + file.path()) + (file.skipped() != null && Terminal.isInteractive()
                            ? terminal.styled(Terminal.Style.QUIET, "   not searched: " + file.skipped()) : ""));
        }
        if (answer.counts().files() > answer.files().size()) {
            Terminal.complain("the first " + limit + " of " + Amounts.of(answer.counts().files(), "file") + "; narrow the search or raise --limit.");
        }
        if (!answer.index().complete()) {
            Terminal.complain("not complete: " + answer.index().indexing() + " of " + answer.index().repositories() + " repositories are not indexed as they are now.");
        }
        return answer.counts().files() > 0 ? ClientMain.FOUND : ClientMain.NOTHING_FOUND;
    }
}
