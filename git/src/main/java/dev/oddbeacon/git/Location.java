package dev.oddbeacon.git;

import dev.oddbeacon.core.text.Split;
import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.eclipse.jgit.transport.URIish;

/** The location of a repository: a local folder, or a file, http, https or ssh URL. */
public final class Location {
    private static final Set<String> SCHEMES = Set.of("file", "http", "https", "ssh");

    private Location() {}

    /**
     * Parses a location.
     *
     * @throws RepositoryProblemException if it is none, is relative, or holds a password
     */
    public static URIish parse(String text) throws RepositoryProblemException {
        URIish uri;
        try {
            uri = new URIish(text);
        } catch (URISyntaxException e) {
            throw new RepositoryProblemException(
                    "\"" + text + "\" is not a location. Give a local folder, or a file://, http(s):// or ssh:// URL.");
        }
        if (uri.getPass() != null) {
            throw new RepositoryProblemException(
                    "The location holds a password. Leave it out: the service takes passwords from the .netrc file, "
                            + "and keys from the SSH agent, of the user that it runs as.");
        }
        if (uri.getScheme() != null && !SCHEMES.contains(uri.getScheme())) {
            throw new RepositoryProblemException("Locations that begin with " + uri.getScheme()
                    + ": are not supported. " + "Give a local folder, or a file://, http(s):// or ssh:// URL.");
        }
        if (uri.getScheme() == null
                && uri.getHost() == null
                && !Path.of(uri.getPath()).isAbsolute()) {
            throw new RepositoryProblemException(
                    "\"" + text + "\" is a relative path. Give the whole path, from the root folder.");
        }
        return uri;
    }

    /**
     * What two ways of writing one location have in common: {@code git@host:team/app.git} and
     * {@code https://host/team/app} give {@code host/team/app}; a folder gives its real path. Protocol, user and port
     * do not count.
     */
    public static Optional<String> key(String text) {
        try {
            URIish uri = new URIish(text);
            String whole = Split.stripEnd(uri.getPath(), '/');
            String path = whole.endsWith(".git")
                    ? Split.stripEnd(whole.substring(0, whole.length() - ".git".length()), '/')
                    : whole;
            if (uri.getHost() != null) {
                return Optional.of(uri.getHost().toLowerCase(Locale.ROOT) + "/" + Split.strip(path, '/'));
            }
            Path folder = Path.of(path);
            return Optional.of((Files.exists(folder) ? folder.toRealPath() : folder.normalize()).toString());
        } catch (URISyntaxException | IOException | InvalidPathException e) {
            return Optional.empty();
        }
    }
}
