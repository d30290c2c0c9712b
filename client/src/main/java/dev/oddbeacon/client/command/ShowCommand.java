package dev.oddbeacon.client.command;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.Submodule;
import dev.oddbeacon.client.options.FileName;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "show",
        mixinStandardHelpOptions = true,
        description = "Prints a file.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon show fare-gate:README.md",
            "  oddbeacon show tidewatch/tidewatch/stations.py@main",
            "  oddbeacon show --raw passenger-app:public/beacon.png > beacon.png"
        })
public final class ShowCommand implements Callable<Integer> {
    @Parameters(paramLabel = "REPO:PATH[@REV]", description = "The file; REPO/PATH, as results print it, is taken too.")
    private String file;

    @Option(names = "--rev", paramLabel = "REV", description = "A branch, tag or commit, where the path holds an @.")
    private String revision;

    @Option(names = "--raw", description = "The bytes as they are in the repository, also of files that are not text.")
    private boolean raw;

    @Option(
            names = "--color",
            paramLabel = "auto|always|never",
            defaultValue = "auto",
            description = "Whether to colour line numbers (default: ${DEFAULT-VALUE}).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        FileName name = FileName.parse(file, revision);
        Service.Parameters parameters =
                new Service.Parameters().add("path", name.path()).add("rev", name.revision());
        if (raw) {
            Terminal.bytes(service.bytes(Service.path("repositories", name.repository(), "raw"), parameters));
            return ExitStatus.FOUND;
        }
        FileContent content =
                service.get(Service.path("repositories", name.repository(), "file"), parameters, FileContent.class);
        if (content.submodule() != null) {
            throw new ServiceProblem(
                    name.path() + " is a submodule: " + leadsTo(content.submodule()), ExitStatus.NOTHING_FOUND);
        }
        if (content.text() == null) {
            throw new ServiceProblem(
                    name.path() + " is not shown: " + content.skipped() + " (" + Amounts.bytes(content.bytes())
                            + "). --raw writes its bytes.",
                    ExitStatus.NOTHING_FOUND);
        }
        print(content);
        return ExitStatus.FOUND;
    }

    private static String leadsTo(Submodule submodule) {
        if (submodule.repository() != null) {
            return "the repository " + submodule.repository() + " at " + submodule.commit()
                    + ". A file of it is shown by: oddbeacon show " + submodule.repository() + "/PATH@"
                    + submodule.commit();
        }
        return Optional.ofNullable(submodule.location()).orElse("another repository") + " at " + submodule.commit()
                + ", which is not registered. Add it to search it: oddbeacon repos add NAME LOCATION";
    }

    private void print(FileContent content) {
        Terminal terminal = new Terminal(color);
        if (!Terminal.isInteractive()) {
            Terminal.bytes(content.text().getBytes(java.nio.charset.StandardCharsets.UTF_8));
            return;
        }
        int[] number = {0};
        content.text()
                .lines()
                .forEach(line ->
                        terminal.line(terminal.styled(Terminal.Style.QUIET, String.format("%6d  ", ++number[0]))
                                + Terminal.clean(line)));
    }
}
