package dev.oddbeacon.git;

import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitOption;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;

/** Where a list of repositories comes from: a folder that holds them, or a text in a file, at an address, in a repository. */
public final class ListSource {
    private static final int DEEPEST = 20;
    private static final int MOST_FOLDERS = 1_000_000;
    private static final int LARGEST = 16 << 20;
    private static final Duration LONGEST = Duration.ofSeconds(60);
    private static final int OK = 200;

    private final GitTransport transport;
    private final Location location;
    private final Optional<String> path;

    /**
     * @param path of the list in a repository
     * @throws RepositoryProblemException if the location cannot be one
     */
    public ListSource(GitTransport transport, String location, Optional<String> path)
            throws RepositoryProblemException {
        this.transport = transport;
        this.location = Location.parse(location);
        this.path = path;
    }

    /** The folder that it is, if it is one and no list. */
    public Optional<Path> folder() {
        return location.folder().filter(folder -> path.isEmpty() && Files.isDirectory(folder));
    }

    /** The folder that relative locations in the list start from. */
    public Optional<Path> base() {
        return path.isPresent() ? Optional.empty() : location.folder().map(Path::getParent);
    }

    /**
     * The repositories at any depth in a folder, bare or not, in their order. Links are not followed, and nothing is
     * looked for inside a repository.
     *
     * @throws RepositoryProblemException if the folder cannot be read to its end
     */
    public List<Path> repositories() throws RepositoryProblemException {
        Path folder = folder().orElseThrow();
        checked();
        List<Path> found = new ArrayList<>();
        int[] seen = {0};
        try {
            Files.walkFileTree(folder, EnumSet.noneOf(FileVisitOption.class), DEEPEST, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult preVisitDirectory(Path each, BasicFileAttributes attributes) throws IOException {
                    if (++seen[0] > MOST_FOLDERS) {
                        throw new IOException("it has more than " + MOST_FOLDERS + " folders");
                    }
                    if (isRepository(each)) {
                        found.add(each);
                        return FileVisitResult.SKIP_SUBTREE;
                    }
                    return FileVisitResult.CONTINUE;
                }
            });
        } catch (IOException e) {
            throw new RepositoryProblemException(
                    "The folder " + folder + " cannot be read to its end: " + e.getMessage() + ".", e);
        }
        return found.stream().sorted().toList();
    }

    private static boolean isRepository(Path folder) {
        return Files.exists(folder.resolve(".git"), LinkOption.NOFOLLOW_LINKS)
                || Files.isRegularFile(folder.resolve("HEAD"))
                        && Files.isDirectory(folder.resolve("objects"))
                        && Files.isDirectory(folder.resolve("refs"));
    }

    /**
     * The text of a list.
     *
     * @param mirror a folder of ours for the repository that holds it
     * @throws RepositoryProblemException if it cannot be read
     */
    public String text(Path mirror) throws RepositoryProblemException {
        try {
            checked();
            if (path.isPresent()) {
                return inRepository(mirror, path.get());
            }
            Optional<Path> file = location.folder();
            if (file.isPresent()) {
                return read(Files.newInputStream(file.get()));
            }
            Location.Host host = location.host().orElseThrow();
            if (host.scheme().equals("ssh")) {
                throw new RepositoryProblemException(
                        location.text() + " is a repository. Say which file in it holds the list.");
            }
            return atAddress(host);
        } catch (IOException e) {
            throw new RepositoryProblemException("The list " + location.text() + " cannot be read.", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }

    private void checked() throws RepositoryProblemException {
        try {
            transport.policy().check(location);
        } catch (LocationPolicy.ForbiddenException e) {
            throw new RepositoryProblemException(
                    location.text() + " is nothing that the service may read. Its settings say where it may look.", e);
        }
    }

    private String inRepository(Path mirror, String list) throws RepositoryProblemException, IOException {
        Mirror.Refs refs = new Mirror(mirror, location.text(), transport).fetch((_, _, _) -> true);
        try (MirrorReader reader = new MirrorReader(mirror);
                MirrorReader.Objects objects = reader.objects()) {
            Optional<MirrorReader.Revision> head = refs.head().isPresent()
                    ? reader.commit("refs/heads/" + refs.head().get())
                    : Optional.empty();
            Optional<ObjectId> blob =
                    head.isPresent() ? objects.at(ObjectId.of(head.get().id()), list) : Optional.empty();
            if (blob.isEmpty()) {
                throw new RepositoryProblemException("There is no file " + list + " in " + location.text() + ".");
            }
            return new String(objects.blob(blob.get()), StandardCharsets.UTF_8);
        }
    }

    /** The address was checked just now: what the JDK knows of a name it keeps for longer than that takes. */
    private String atAddress(Location.Host host) throws IOException, InterruptedException, RepositoryProblemException {
        HttpRequest.Builder request =
                HttpRequest.newBuilder(URI.create(location.text())).timeout(LONGEST);
        transport.authorization(host).ifPresent(authorization -> request.header("Authorization", authorization));
        try (HttpClient client = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NEVER)
                .connectTimeout(LONGEST)
                .build()) {
            HttpResponse<InputStream> response =
                    client.send(request.build(), HttpResponse.BodyHandlers.ofInputStream());
            if (response.statusCode() != OK) {
                response.body().close();
                throw new RepositoryProblemException(
                        location.text() + " answers " + response.statusCode() + " instead of a list.");
            }
            return read(response.body());
        }
    }

    private String read(InputStream stream) throws IOException, RepositoryProblemException {
        try (stream) {
            byte[] bytes = stream.readNBytes(LARGEST + 1);
            if (bytes.length > LARGEST) {
                throw new RepositoryProblemException(
                        "The list " + location.text() + " has more than " + (LARGEST >> 20) + " MiB.");
            }
            return new String(bytes, StandardCharsets.UTF_8);
        }
    }
}
