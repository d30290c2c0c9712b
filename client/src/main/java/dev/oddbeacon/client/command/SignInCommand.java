package dev.oddbeacon.client.command;

import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "sign-in",
        mixinStandardHelpOptions = true,
        description =
                "Signs in through a browser: shows an address and a short code, and waits until somebody who is signed in there allows it. The token is kept in a file that only you can read.%n",
        footer = {"", "Example: oddbeacon sign-in --url https://search.quillhaven.example"})
public final class SignInCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Override
    public Integer call() throws InterruptedException {
        String token = BrowserGrant.await(service, new Service.Parameters(), "oddbeacon sign-in");
        Path kept = service.keep(Optional.of(token));
        new Terminal(Terminal.Color.AUTO).line("Signed in. The token is kept in " + kept + ".");
        return ExitStatus.FOUND;
    }
}
