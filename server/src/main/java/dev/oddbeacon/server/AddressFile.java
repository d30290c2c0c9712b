package dev.oddbeacon.server;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.ApplicationContext;
import org.springframework.context.event.EventListener;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/**
 * Once the service answers, the file {@code address} in the data folder holds where: how the launcher learns a port
 * that was free.
 */
@Component
class AddressFile {
    private final Path file;
    private final List<String> names;

    AddressFile(Settings settings) {
        this.names = settings.names();
        this.file = settings.data().toAbsolutePath().resolve("address");
    }

    @EventListener
    void write(ApplicationReadyEvent event) throws IOException {
        ApplicationContext context = event.getApplicationContext();
        Environment environment = context.getEnvironment();
        boolean tls = !environment.getProperty("server.ssl.bundle", "").isEmpty();
        String host = tls ? names.stream().findFirst().orElse("127.0.0.1") : "127.0.0.1";
        String address =
                (tls ? "https://" : "http://") + host + ":" + environment.getProperty("local.server.port") + "/\n";
        Path unfinished = file.resolveSibling("address.unfinished");
        Files.writeString(unfinished, address);
        Files.move(unfinished, file, StandardCopyOption.ATOMIC_MOVE);
    }
}
