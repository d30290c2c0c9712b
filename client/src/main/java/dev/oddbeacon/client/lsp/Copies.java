package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.URI;
import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Files of repositories that the editor has no work tree of, as copies that can only be read: any editor can open those.
 * They lie in {@code ~/.cache/oddbeacon/files} ({@code $XDG_CACHE_HOME} is honoured), for nobody else to read, by
 * service, repository, branch and commit; what is a month old is removed.
 */
final class Copies {
    private static final Duration KEPT = Duration.ofDays(30);
    private static final int PARTS = 4;

    private final Service service;
    private final Path folder;

    Copies(Service service) {
        this.service = service;
        String cache = System.getenv("XDG_CACHE_HOME");
        this.folder = (cache == null || cache.isEmpty()
                        ? Path.of(System.getProperty("user.home"), ".cache")
                        : Path.of(cache))
                .resolve("oddbeacon")
                .resolve("files");
    }

    /** Where a copy comes from. */
    record Origin(String repository, String branch, String path) {}

    /** What a file is a copy of; empty if it is none of this service. */
    Optional<Origin> origin(Path file) {
        if (!file.startsWith(folder) || file.getNameCount() - folder.getNameCount() <= PARTS) {
            return Optional.empty();
        }
        Path in = folder.relativize(file);
        if (!in.getName(0).toString().equals(authority())) {
            return Optional.empty();
        }
        return Optional.of(new Origin(
                decoded(in.getName(1)),
                decoded(in.getName(2)),
                in.subpath(PARTS, in.getNameCount()).toString()));
    }

    /** A copy of a file as it is indexed; empty if the service has it no more. */
    Optional<Path> of(String repository, String branch, String path, String commit) {
        Path place = folder.resolve(authority())
                .resolve(encoded(repository))
                .resolve(encoded(branch))
                .resolve(encoded(commit));
        Path file = place.resolve(path).normalize();
        if (!file.startsWith(place)) {
            return Optional.empty(); // no path of Git leads out of its tree
        }
        try {
            if (!Files.exists(file)) {
                FileContent content = service.get(
                        Service.path("repositories", repository, "file"),
                        new Service.Parameters().add("path", path).add("rev", commit),
                        FileContent.class);
                if (content.text() == null) {
                    return Optional.empty();
                }
                Files.createDirectories(
                        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
                Files.createDirectories(file.getParent());
                Path part = Files.createTempFile(place, "", ".part");
                Files.writeString(part, content.text());
                Files.setPosixFilePermissions(part, PosixFilePermissions.fromString("r--------"));
                Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
            }
            return Optional.of(file);
        } catch (ServiceProblem e) {
            return Optional.empty();
        } catch (IOException e) {
            throw new UncheckedIOException("A copy of " + path + " could not be written: " + e.getMessage(), e);
        }
    }

    /** Removes what was written more than a month ago. */
    void tidy() {
        if (!Files.isDirectory(folder)) {
            return;
        }
        Instant oldest = Instant.now().minus(KEPT);
        try (Stream<Path> all = Files.walk(folder)) {
            List<Path> old = all.filter(Files::isRegularFile)
                    .filter(file -> file.toFile().lastModified() < oldest.toEpochMilli())
                    .toList();
            for (Path file : old) {
                Files.deleteIfExists(file);
            }
        } catch (IOException | UncheckedIOException e) {
            // they only take room
        }
    }

    private String authority() {
        return encoded(URI.create(service.url()).getAuthority().replace(':', '-'));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private static String decoded(Path name) {
        return URLDecoder.decode(name.toString(), StandardCharsets.UTF_8);
    }
}
