package dev.oddbeacon.client.command;

import dev.oddbeacon.client.output.ManPage;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code oddbeacon man}. */
@Command(
        name = "man",
        mixinStandardHelpOptions = true,
        description = "Prints the manual page of a command, as man reads it; without one, that of all.%n",
        footer = {
            "",
            "To keep one, or to read it at once:",
            "  oddbeacon man lines > oddbeacon-lines.1",
            "  oddbeacon man searches check | man -l -"
        })
public final class ManCommand implements Callable<Integer> {
    @Parameters(paramLabel = "COMMAND", arity = "0..*", description = "The command, as in: searches check.")
    private List<String> words = new ArrayList<>();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        CommandLine line = spec.parent().commandLine();
        for (String word : words) {
            if (!line.getSubcommands().containsKey(word)) {
                throw new ParameterException(
                        spec.commandLine(), "There is no command " + String.join(" ", words) + ".");
            }
            line = line.getSubcommands().get(word);
        }
        Terminal.bytes(ManPage.of(line).getBytes(StandardCharsets.UTF_8));
        return ExitStatus.FOUND;
    }
}
