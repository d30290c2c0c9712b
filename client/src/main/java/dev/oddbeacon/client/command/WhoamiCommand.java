package dev.oddbeacon.client.command;

import dev.oddbeacon.api.SessionInfo;
import dev.oddbeacon.client.options.SingleFormat;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "whoami",
        mixinStandardHelpOptions = true,
        description = "Shows who is signed in, and what they may do.%n",
        footer = {"", "Example: oddbeacon whoami"})
public final class WhoamiCommand implements Callable<Integer> {
    @Mixin
    private SingleFormat format;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        SessionInfo session = service.get(Service.path("session"), new Service.Parameters(), SessionInfo.class);
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        if (format.isJson()) {
            terminal.json(session);
        } else if (!session.accounts()) {
            terminal.line("Nobody signs in at " + service.address() + ": whoever reaches it may do everything.");
        } else if (session.person() == null) {
            Terminal.complain("nobody is signed in at " + service.address() + "; run oddbeacon sign-in.");
        } else {
            SessionInfo.SignedIn person = session.person();
            terminal.line(person.name() + "  " + person.displayName() + ", " + person.role()
                    + (person.teams().isEmpty() ? "" : ", in " + String.join(", ", person.teams()))
                    + (person.token() == null ? "" : ", by the token \"" + person.token() + "\""));
        }
        return ExitStatus.of(!session.accounts() || session.person() != null);
    }
}
