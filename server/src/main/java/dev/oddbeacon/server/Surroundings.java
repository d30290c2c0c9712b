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

    static void check(ConfigurableEnvironment environment) {
        String address = environment.getRequiredProperty("server.address");
        int port = environment.getRequiredProperty("server.port", Integer.class);
        try {
            InetAddress inet = InetAddress.getByName(address);
            if (!inet.isLoopbackAddress()) {
                checkThatOthersMayReachIt(environment, address);
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
        waitForDatabase(
                environment.getRequiredProperty("oddbeacon.database.url"),
                environment.getRequiredProperty("oddbeacon.database.user"),
                environment.getProperty("oddbeacon.database.password", ""));
    }

    private static void checkThatOthersMayReachIt(ConfigurableEnvironment environment, String address) {
        boolean accounts = environment.getProperty("oddbeacon.accounts", Boolean.class, false);
        boolean tls = environment.containsProperty("server.ssl.bundle");
        boolean proxies = environment.containsProperty("server.tomcat.remoteip.internal-proxies");
        if (!accounts) {
            throw new CannotStartException("Others can reach " + address
                    + ", so people have to sign in: add --with-accounts, or listen on 127.0.0.1.");
        }
        if (!tls && !proxies) {
            throw new CannotStartException(
                    "Others can reach " + address
                            + ", and passwords must not travel in the clear: add --tls CERTIFICATE KEY (two PEM files), or --proxy ADDRESS of the proxy that does it.");
        }
        if (environment
                .getProperty("oddbeacon.names[0]", environment.getProperty("oddbeacon.names", ""))
                .isEmpty()) {
            throw new CannotStartException(
                    "Say by which name people reach the service: add --name search.example.org.");
        }
    }

    private static void waitForDatabase(String url, String user, String password) {
        Instant deadline = Instant.now().plus(PATIENCE);
        boolean told = false;
        while (true) {
            try (Connection _ = DriverManager.getConnection(url, user, password)) {
                return;
            } catch (SQLException e) {
                boolean refused = e.getSQLState() != null && e.getSQLState().startsWith("28");
                if (refused || Instant.now().isAfter(deadline)) {
                    throw new CannotStartException(
                            "MariaDB at " + url + " does not let user " + user + " in: " + e.getMessage());
                }
                if (!told) {
                    System.err.println("Waiting for MariaDB at " + url);
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
