package dev.oddbeacon.client.command;

import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "sign-out",
        mixinStandardHelpOptions = true,
        description = "Takes the token back that sign-in brought, and forgets it here.%n",
        footer = {"", "Example: oddbeacon sign-out"})
public final class SignOutCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Override
    public Integer call() {
        try {
            service.delete(Service.path("session"));
        } catch (ServiceProblem e) {
            if (e.exitStatus() == ExitStatus.FAILED) { // it could not be taken back
                throw e;
            }
        }
        service.keep(Optional.empty());
        new Terminal(Terminal.Color.AUTO).line("Signed out of " + service.address() + ".");
        return ExitStatus.FOUND;
    }
}
