package dev.oddbeacon.git;

import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.core.text.Visible;
import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.eclipse.jgit.transport.URIish;

/**
 * The location of a repository: a local folder, or a file, http, https or ssh URL.
 *
 * @param text as it was written; it holds no secret
 * @param folder of a local one
 * @param host of a remote one
 */
public record Location(String text, Optional<Path> folder, Optional<Host> host) {
    private static final Map<String, Integer> PORTS = Map.of("http", 80, "https", 443, "ssh", 22);
    private static final String FORMS = "Give a local folder, or a file://, http(s):// or ssh:// URL.";

    /** @param scheme http, https or ssh */
    public record Host(String scheme, String name, int port) {}

    /**
     * Parses a location.
     *
     * @throws RepositoryProblemException if it is none, is relative, could be taken for an option, or holds a password
     * or a token
     */
    public static Location parse(String text) throws RepositoryProblemException {
        if (text.isBlank() || text.startsWith("-") || !Visible.isVisible(text)) {
            throw new RepositoryProblemException("\"" + Visible.escaped(text) + "\" is not a location. " + FORMS);
        }
        try {
            return of(text, new URIish(text));
        } catch (URISyntaxException | InvalidPathException e) {
            throw new RepositoryProblemException("This is not a location. " + FORMS);
        }
    }

    private static Location of(String text, URIish uri) throws RepositoryProblemException {
        String scheme = Optional.ofNullable(uri.getScheme()).orElse("").toLowerCase(Locale.ROOT);
        boolean isWeb = scheme.startsWith("http");
        boolean holdsSecret = uri.getPass() != null
                || isWeb && (uri.getUser() != null || text.indexOf('?') >= 0 || text.indexOf('#') >= 0);
        if (holdsSecret) {
            throw new RepositoryProblemException(
                    "The location holds a password, or what could be a token. Leave out what stands before @ and behind ?: "
                            + "the service takes passwords from the .netrc file, and keys from the SSH agent, of the user that it runs as.");
        }
        if (uri.getHost() != null && !scheme.equals("file")) {
            String kind = scheme.isEmpty() ? "ssh" : scheme;
            if (!PORTS.containsKey(kind)) {
                throw new RepositoryProblemException(
                        "Locations that begin with " + scheme + ": are not supported. " + FORMS);
            }
            if (uri.getHost().startsWith("-")
                    || Optional.ofNullable(uri.getPath()).orElse("").startsWith("-")) {
                throw new RepositoryProblemException("A host or path that begins with a dash is none. " + FORMS);
            }
            int port = uri.getPort() > 0 ? uri.getPort() : PORTS.get(kind);
            return new Location(text, Optional.empty(), Optional.of(new Host(kind, uri.getHost(), port)));
        }
        if (!scheme.isEmpty() && !scheme.equals("file")) {
            throw new RepositoryProblemException(
                    "Locations that begin with " + scheme + ": are not supported. " + FORMS);
        }
        Path folder = Path.of(uri.getPath());
        if (!folder.isAbsolute()) {
            throw new RepositoryProblemException(
                    "\"" + text + "\" is a relative path. Give the whole path, from the root folder.");
        }
        return new Location(text, Optional.of(folder), Optional.empty());
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
