package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Machines;
import dev.oddbeacon.api.Machines.Machine;
import dev.oddbeacon.client.options.SingleFormat;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.output.TextTable;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "machines",
        mixinStandardHelpOptions = true,
        description = "The machines of a cluster. For administrators.%n",
        synopsisSubcommandLabel = "COMMAND",
        subcommands = {MachinesCommand.ListCommand.class, MachinesCommand.RetireCommand.class},
        footer = {"", "Example: oddbeacon machines list"})
public final class MachinesCommand implements Runnable {
    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(), "A command is missing: list or retire.");
    }

    @Command(
            name = "list",
            mixinStandardHelpOptions = true,
            description = "Lists the machines, what each holds, and what it still lacks.%n",
            footer = {
                "",
                "* answered this; ! does what only one machine does; ? is not reached by the one that answered.",
                "Exit status 1 if the service is one machine alone, 4 if a machine is gone or not reached.",
                "",
                "Example: oddbeacon machines list"
            })
    static final class ListCommand implements Callable<Integer> {
        @Mixin
        private SingleFormat format;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Machines all = service.get(Service.path("machines"), new Service.Parameters(), Machines.class);
            Terminal terminal = new Terminal(Terminal.Color.AUTO);
            if (format.isJson()) {
                terminal.json(all);
            } else if (all.machines().isEmpty()) {
                Terminal.complain("the service is one machine, not a cluster of several.");
            } else {
                terminal.line(all.cluster() + " shares " + Terminal.clean(all.objects()));
                TextTable.print(
                        terminal,
                        List.of("MACHINE", "", "STATE", "AT", "FILES", "INDEX", "TO BRING", "MIRRORS", "BEHIND"),
                        all.machines().stream().map(ListCommand::row).toList(),
                        Set.of(4, 5, 6, 7, 8));
            }
            boolean isOneToActOn = all.machines().stream().anyMatch(one -> isGone(one) || isUnreached(one));
            return isOneToActOn
                    ? ExitStatus.TO_ACT_ON
                    : ExitStatus.of(!all.machines().isEmpty());
        }

        private static boolean isGone(Machine one) {
            return one.state().equals("gone");
        }

        private static boolean isUnreached(Machine one) {
            return one.state().equals("serving") && !one.isReached();
        }

        private static List<String> row(Machine one) {
            return List.of(
                    one.name(),
                    (one.isAnswering() ? "*" : "") + (one.isInCharge() ? "!" : "") + (isUnreached(one) ? "?" : ""),
                    one.state(),
                    one.address().isEmpty() ? "-" : one.address(),
                    Amounts.number(one.files()),
                    Amounts.bytes(one.bytes()),
                    Amounts.number(one.missing()),
                    Amounts.number(one.mirrors()),
                    Amounts.number(one.mirrorsBehind()));
        }
    }

    @Command(
            name = "retire",
            mixinStandardHelpOptions = true,
            description =
                    "Takes a machine out of the cluster: it begins nothing more, and can be stopped once it has ended what it was doing. One that is gone for good is forgotten.%n",
            footer = {"", "Example: oddbeacon machines retire lamp"})
    static final class RetireCommand implements Callable<Integer> {
        @Parameters(paramLabel = "NAME", description = "As machines list shows it.")
        private String name;

        @Mixin
        private Service service;

        @Override
        public Integer call() {
            Machines left = service.post(Service.path("machines", name, "retire"), Map.of(), Machines.class);
            boolean isGone = left.machines().stream()
                    .filter(one -> one.name().equals(name))
                    .allMatch(one -> one.state().equals("gone"));
            Terminal.note(
                    isGone
                            ? name + " was gone, and is forgotten."
                            : name + " begins nothing more. Stop it when you like: the others have all that it has.");
            return ExitStatus.FOUND;
        }
    }
}
