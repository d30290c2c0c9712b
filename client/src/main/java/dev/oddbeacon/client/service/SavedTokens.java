package dev.oddbeacon.client.service;

import java.io.IOException;
import java.io.Reader;
import java.io.Writer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Optional;
import java.util.Properties;

/**
 * The tokens of services that one has signed in to, by their addresses, in {@code ~/.config/oddbeacon/tokens} ({@code
 * $XDG_CONFIG_HOME} is honoured), which only its owner may read.
 */
final class SavedTokens {
    private final Path file;

    SavedTokens() {
        String home = System.getenv("XDG_CONFIG_HOME");
        this.file = (home == null || home.isEmpty()
                        ? Path.of(System.getProperty("user.home"), ".config")
                        : Path.of(home))
                .resolve("oddbeacon")
                .resolve("tokens");
    }

    /** The token for a service; that of the environment comes first. */
    Optional<String> find(String address) {
        Optional<String> own =
                Optional.ofNullable(System.getenv("ODDBEACON_TOKEN")).filter(token -> !token.isEmpty());
        return own.isPresent() || !Files.exists(file) ? own : Optional.ofNullable(read().getProperty(address));
    }

    /** Keeps a token, or forgets the one that is kept. @return where */
    Path keep(String address, Optional<String> token) {
        Properties all = Files.exists(file) ? read() : new Properties();
        token.ifPresentOrElse(value -> all.setProperty(address, value), () -> all.remove(address));
        try {
            Files.createDirectories(file.getParent());
            Path fresh = Files.createTempFile(
                    file.getParent(),
                    "tokens",
                    ".new",
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            try (Writer writer = Files.newBufferedWriter(fresh)) {
                all.store(writer, "Tokens of services, by their addresses. Keep this to yourself.");
            }
            Files.move(fresh, file, StandardCopyOption.ATOMIC_MOVE);
            return file;
        } catch (IOException e) {
            throw new ServiceProblem(file + " could not be written: " + e.getMessage() + ".", ExitStatus.FAILED);
        }
    }

    private Properties read() {
        Properties all = new Properties();
        try (Reader reader = Files.newBufferedReader(file)) {
            all.load(reader);
            return all;
        } catch (IOException | IllegalArgumentException e) {
            throw new ServiceProblem(
                    file + " could not be read: " + e.getMessage() + ". Remove it, and sign in again.",
                    ExitStatus.FAILED);
        }
    }
}
