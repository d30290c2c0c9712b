package dev.oddbeacon.client.command;

import dev.oddbeacon.client.output.ManPage;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
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
            "To read one at once, to keep one, or to keep all of them:",
            "  oddbeacon man searches check | man -l -",
            "  oddbeacon man lines > oddbeacon-lines.1",
            "  oddbeacon man --into ~/.local/share/man/man1"
        })
public final class ManCommand implements Callable<Integer> {
    @Parameters(paramLabel = "COMMAND", arity = "0..*", description = "The command, as in: searches check.")
    private List<String> words = new ArrayList<>();

    @Option(
            names = "--into",
            paramLabel = "FOLDER",
            description =
                    "Writes the page of the command and of all below it into this folder, instead of printing one.")
    private Path into;

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
        if (into != null) {
            write(line);
        } else {
            Terminal.bytes(ManPage.of(line).getBytes(StandardCharsets.UTF_8));
        }
        return ExitStatus.FOUND;
    }

    private void write(CommandLine line) {
        try {
            Files.createDirectories(into);
            writePages(line, into);
        } catch (IOException e) {
            throw new ParameterException(
                    spec.commandLine(), "The pages cannot be written into " + into + ": " + e.getMessage() + ".");
        }
    }

    private static void writePages(CommandLine line, Path folder) throws IOException {
        Files.writeString(folder.resolve(ManPage.name(line) + ".1"), ManPage.of(line));
        for (CommandLine below : Set.copyOf(line.getSubcommands().values())) {
            if (!below.getCommandSpec().usageMessage().hidden()) {
                writePages(below, folder);
            }
        }
    }
}
