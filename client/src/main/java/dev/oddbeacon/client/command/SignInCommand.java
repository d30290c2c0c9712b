package dev.oddbeacon.client.command;

import dev.oddbeacon.api.DeviceGrant;
import dev.oddbeacon.api.GrantedToken;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.net.InetAddress;
import java.net.UnknownHostException;
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
    private static final String DEVICE = Service.path("session", "device");

    @Mixin
    private Service service;

    @Override
    public Integer call() throws InterruptedException {
        Terminal terminal = new Terminal(Terminal.Color.AUTO);
        DeviceGrant grant = service.form(
                DEVICE, new Service.Parameters().add("client_id", "oddbeacon on " + hostName()), DeviceGrant.class);
        if (grant.user_code() == null) {
            throw new ServiceProblem(
                    "Nobody signs in at this service: every command works as it is.", ExitStatus.NOTHING_FOUND);
        }
        terminal.line("Open " + grant.verification_uri_complete());
        terminal.line("and compare the code: " + grant.user_code());
        Terminal.flush();
        long end = System.nanoTime() + grant.expires_in() * 1_000_000_000L;
        while (System.nanoTime() < end) {
            Thread.sleep(grant.interval() * 1_000L);
            GrantedToken answer = service.form(
                    DEVICE + "/token",
                    new Service.Parameters()
                            .add("grant_type", DeviceGrant.GRANT_TYPE)
                            .add("device_code", grant.device_code()),
                    GrantedToken.class);
            if (answer.access_token() != null) {
                Path kept = service.keep(Optional.of(answer.access_token()));
                terminal.line("Signed in. The token is kept in " + kept + ".");
                return ExitStatus.FOUND;
            }
            if ("access_denied".equals(answer.error())) {
                throw new ServiceProblem("It was refused in the browser.", ExitStatus.WRONG);
            }
            if ("expired_token".equals(answer.error())) {
                break;
            }
        }
        throw new ServiceProblem("Nobody allowed it in time. Run oddbeacon sign-in again.", ExitStatus.WRONG);
    }

    private static String hostName() {
        try {
            String name = InetAddress.getLocalHost().getHostName();
            return name.substring(0, Math.min(40, name.length()));
        } catch (UnknownHostException e) {
            return "this machine";
        }
    }
}
