package dev.oddbeacon.server;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.UnknownHostException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import org.springframework.core.env.ConfigurableEnvironment;

/** Whether the service can do its work here: nobody reaches it who should not, its port is free, MariaDB answers. */
final class Surroundings {
    private static final Duration PATIENCE = Duration.ofSeconds(60);

    private Surroundings() {}

    static void checkAddress(ConfigurableEnvironment environment, Settings settings) {
        String address = environment.getRequiredProperty("server.address");
        int port = environment.getRequiredProperty("server.port", Integer.class);
        try {
            InetAddress inet = InetAddress.getByName(address);
            if (!inet.isLoopbackAddress()) {
                checkThatOthersMayReachIt(settings, address);
            }
            if (port != 0) {
                try (ServerSocket probe = new ServerSocket()) {
                    probe.setReuseAddress(true);
                    probe.bind(new InetSocketAddress(inet, port));
                }
            }
        } catch (UnknownHostException e) {
            throw new CannotStartException(
                    "oddbeacon.listen is " + address + ", which is no address. Leave it out, or set it to 127.0.0.1.");
        } catch (IOException e) {
            throw new CannotStartException(
                    "Port " + port
                            + " is taken by another program. Stop that, or choose another port with --port N; --port 0 takes a free one.");
        }
    }

    private static void checkThatOthersMayReachIt(Settings settings, String address) {
        if (!settings.accounts()) {
            throw new CannotStartException("Others can reach " + address
                    + ", so people have to sign in: add --with-accounts, or listen on 127.0.0.1.");
        }
        if (settings.tls().certificate().isEmpty() && settings.proxies().isEmpty()) {
            throw new CannotStartException(
                    "Others can reach " + address
                            + ", and passwords must not travel in the clear: add --tls CERTIFICATE KEY (two PEM files), or --proxy ADDRESS of the proxy that does it.");
        }
        if (settings.names().isEmpty()) {
            throw new CannotStartException(
                    "Say by which name people reach the service: add --name search.example.org.");
        }
    }

    static void waitForDatabase(Settings.Database database) {
        Instant deadline = Instant.now().plus(PATIENCE);
        boolean told = false;
        while (true) {
            try (Connection _ = DriverManager.getConnection(database.url(), database.user(), database.password())) {
                return;
            } catch (SQLException e) {
                boolean refused = e.getSQLState() != null && e.getSQLState().startsWith("28");
                if (refused || Instant.now().isAfter(deadline)) {
                    throw new CannotStartException("MariaDB at " + database.url() + " does not let user "
                            + database.user() + " in: " + e.getMessage());
                }
                if (!told) {
                    System.err.println("Waiting for MariaDB at " + database.url());
                    told = true;
                }
                pause();
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(200);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
