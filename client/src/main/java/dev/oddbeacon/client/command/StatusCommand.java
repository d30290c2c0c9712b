package dev.oddbeacon.client.command;

import dev.oddbeacon.api.IndexCheck;
import dev.oddbeacon.api.ServiceStatus;
import dev.oddbeacon.client.options.SingleFormat;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "status",
        mixinStandardHelpOptions = true,
        description = "Shows the state of the service.%n",
        footer = {"", "Example: oddbeacon status --format jsonl"})
public final class StatusCommand implements Callable<Integer> {
    @Mixin
    private SingleFormat format;

    @Option(
            names = "--verify",
            description =
                    "Compare all files of the index with their checksums first; damaged ones are taken out and rebuilt.")
    private boolean verify;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        int verified = verify ? verify() : ExitStatus.FOUND;
        return verified == ExitStatus.FOUND ? status() : verified;
    }

    private int verify() {
        IndexCheck check = service.post(Service.path("status", "verify"), "", IndexCheck.class);
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        if (format.isJson()) {
            terminal.json(check);
        } else if (check.damaged().isEmpty()) {
            terminal.line(Amounts.of(check.files(), "file") + " of the index, " + Amounts.bytes(check.bytes())
                    + ", are as they were written.");
        }
        if (!check.damaged().isEmpty()) {
            Terminal.complain("damaged: " + String.join(", ", check.damaged())
                    + ". What they held is being indexed anew; oddbeacon repos list shows when it is done.");
            return ExitStatus.FAILED;
        }
        return ExitStatus.FOUND;
    }

    private int status() {
        ServiceStatus status = service.get(Service.path("status"), new Service.Parameters(), ServiceStatus.class);
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        if (format.isJson()) {
            terminal.json(status);
            return ExitStatus.FOUND;
        }
        Optional.ofNullable(status.warnings()).orElse(List.of()).forEach(Terminal::complain);
        terminal.line("Odd Beacon " + status.version());
        terminal.line("repositories  " + status.repositories()
                + (status.indexing() > 0 ? ", " + status.indexing() + " waiting or being indexed" : "")
                + (status.failed() > 0 ? ", " + status.failed() + " failed (oddbeacon repos list tells why)" : ""));
        terminal.line("source        " + Amounts.of(status.files(), "file") + ", " + Amounts.of(status.lines(), "line")
                + ", " + Amounts.bytes(status.bytes()));
        terminal.line("index         " + Amounts.bytes(status.indexBytes()) + " in "
                + Amounts.of(status.segments(), "segment"));
        terminal.line(
                "past          " + Amounts.of(status.commits(), "commit") + ", " + Amounts.bytes(status.pastBytes()));
        terminal.line("heap in use   " + Amounts.bytes(status.heapBytes()));
        terminal.line("records       "
                + (status.records()
                        ? "MariaDB answers"
                        : "MariaDB does not answer: searching goes on, nothing can be changed"));
        return status.records() ? ExitStatus.FOUND : ExitStatus.FAILED;
    }
}
