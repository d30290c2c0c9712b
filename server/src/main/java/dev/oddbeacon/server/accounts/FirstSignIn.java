package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.FirstAdministrator;
import dev.oddbeacon.api.NewAccount;
import dev.oddbeacon.api.Role;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.util.List;
import java.util.Optional;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/**
 * How the first administrator gets in: while there is none, the file {@code first-sign-in} in the data folder holds a
 * secret that is good once. Only whoever runs the service can read it; the launcher prints a link with it.
 */
@Component
public class FirstSignIn {
    private final Settings settings;
    private final Directory directory;
    private final Accounts accounts;
    private final Path file;
    private Optional<String> secret = Optional.empty(); // guarded by this

    FirstSignIn(Settings settings, Directory directory, Accounts accounts) {
        this.settings = settings;
        this.directory = directory;
        this.accounts = accounts;
        this.file = settings.data().toAbsolutePath().resolve("first-sign-in");
    }

    @EventListener
    @Order(0) // before the address is told, for which the launcher waits
    synchronized void offer(ApplicationReadyEvent event) throws IOException {
        Files.deleteIfExists(file);
        if (settings.accounts() && !directory.hasAdministrator()) {
            secret = Optional.of(Secrets.random());
            Files.createFile(file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(file, secret.get());
        }
    }

    /**
     * Makes the first administrator.
     *
     * @throws NotFoundException if there is an administrator, or the secret is another
     */
    public synchronized Account use(FirstAdministrator wanted) throws IOException {
        boolean isRight = secret.isPresent()
                && wanted.secret() != null
                && MessageDigest.isEqual(
                        secret.get().getBytes(StandardCharsets.UTF_8),
                        wanted.secret().getBytes(StandardCharsets.UTF_8));
        if (!isRight || directory.hasAdministrator()) {
            throw new NotFoundException(
                    "This link has been used, or is of an earlier start. Sign in, or ask an administrator.");
        }
        String name = accounts.add(new NewAccount(
                        wanted.name(),
                        wanted.displayName(),
                        Role.ADMINISTRATOR.label(),
                        List.of(),
                        Optional.ofNullable(wanted.password()).orElse("")))
                .name();
        secret = Optional.empty();
        Files.deleteIfExists(file);
        return directory.account(name).orElseThrow();
    }
}
