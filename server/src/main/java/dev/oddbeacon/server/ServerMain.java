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
import java.util.concurrent.CompletableFuture;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.event.ApplicationEnvironmentPreparedEvent;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.context.ApplicationListener;
import org.springframework.core.env.ConfigurableEnvironment;

/**
 * Starts the service. What would make it useless is found out before anything else starts, and said in one line on
 * standard error, exit status 3: an address that others could reach, a port that is taken, a MariaDB that does not
 * answer.
 */
@SpringBootApplication
@ConfigurationPropertiesScan
public class ServerMain {
    private static final int CANNOT_START = 3;
    private static final Duration PATIENCE = Duration.ofSeconds(60);

    public static void main(String[] arguments) {
        SpringApplication application = new SpringApplication(ServerMain.class);
        application.addListeners((ApplicationListener<ApplicationEnvironmentPreparedEvent>)
                event -> checkSurroundings(event.getEnvironment()));
        endWith(application.run(arguments).getEnvironment().getProperty("oddbeacon.parent", Long.class));
    }

    /** Ends when the process that started this one does: nobody could stop it any more. */
    private static void endWith(Long parent) {
        if (parent != null) {
            ProcessHandle.of(parent)
                    .map(ProcessHandle::onExit)
                    .orElseGet(() -> CompletableFuture.completedFuture(null))
                    .thenRun(() -> System.exit(0));
        }
    }

    private static void checkSurroundings(ConfigurableEnvironment environment) {
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
            refuse("server.address is " + address + ", which is no address. Leave it out, or set it to 127.0.0.1.");
        } catch (IOException e) {
            refuse(
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
        boolean tls = !environment.getProperty("server.ssl.bundle", "").isEmpty();
        boolean proxies = !environment
                .getProperty("server.tomcat.remoteip.internal-proxies", "")
                .isEmpty();
        if (!accounts) {
            refuse("Others can reach " + address
                    + ", so people have to sign in: add --with-accounts, or listen on 127.0.0.1.");
        }
        if (!tls && !proxies) {
            refuse(
                    "Others can reach " + address
                            + ", and passwords must not travel in the clear: add --tls CERTIFICATE KEY (two PEM files), or --proxy ADDRESS of the proxy that does it.");
        }
        if (environment
                .getProperty("oddbeacon.names[0]", environment.getProperty("oddbeacon.names", ""))
                .isEmpty()) {
            refuse("Say by which name people reach the service: add --name search.example.org.");
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
                    refuse("MariaDB at " + url + " does not let user " + user + " in: " + e.getMessage());
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

    private static void refuse(String why) {
        System.err.println("oddbeacon: " + why);
        System.exit(CANNOT_START);
    }
}
