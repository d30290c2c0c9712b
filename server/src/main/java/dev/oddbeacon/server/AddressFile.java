package dev.oddbeacon.server;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/**
 * Once the service answers, the file {@code address} in the data folder holds where: how the launcher learns a port
 * that was free.
 */
@Component
public class AddressFile {
    private static final String LOOPBACK = "127.0.0.1";

    private final Path file;
    private final List<String> names;

    AddressFile(Settings settings) {
        this.names = settings.names();
        this.file = settings.data().toAbsolutePath().resolve("address");
    }

    @EventListener
    void write(ApplicationReadyEvent event) throws IOException {
        String address = address(event.getApplicationContext().getEnvironment(), names, LOOPBACK) + "\n";
        Path unfinished = file.resolveSibling("address.unfinished");
        Files.writeString(unfinished, address);
        Files.move(unfinished, file, StandardCopyOption.ATOMIC_MOVE);
    }

    /**
     * Where the service answers, with a slash at the end.
     *
     * @param names by which it is reached, with TLS
     * @param otherwise the host without them
     */
    public static String address(Environment environment, List<String> names, String otherwise) {
        boolean tls = !environment.getProperty("server.ssl.bundle", "").isEmpty();
        String host = tls ? names.stream().findFirst().orElse(otherwise) : otherwise;
        return (tls ? "https://" : "http://") + host + ":" + environment.getProperty("local.server.port") + "/";
    }
}
