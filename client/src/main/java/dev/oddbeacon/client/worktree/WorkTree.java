package dev.oddbeacon.client.worktree;

import dev.oddbeacon.api.Recognised;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import tools.jackson.core.type.TypeReference;

/**
 * The Git work tree that one stands in, and the repository of the service that it belongs to.
 *
 * @param root of the work tree
 * @param prefix the folder one stands in, from the root: {@code src/main/}; empty at the root
 * @param branch the one that is checked out, if it is indexed; else empty, for the default branch
 */
public record WorkTree(Path root, String prefix, String repository, String branch) {

    /** @throws ServiceProblem if there is no work tree, or it belongs to no one repository */
    public static WorkTree here(Service service) {
        return at(Path.of(""), service)
                .orElseThrow(() -> new ServiceProblem(
                        "--here works in a Git work tree, and " + Path.of("").toAbsolutePath() + " is in none.",
                        ExitStatus.WRONG));
    }

    /**
     * The work tree that a folder lies in; empty if it lies in none.
     *
     * @throws ServiceProblem if it belongs to no one repository
     */
    public static Optional<WorkTree> at(Path folder, Service service) {
        Git git = new Git(folder);
        Optional<Path> found = git.text("rev-parse", "--show-toplevel")
                .filter(text -> !text.isEmpty())
                .map(Path::of);
        if (found.isEmpty()) {
            return Optional.empty();
        }
        Path root = found.get();
        String repository = repository(root, git, service);
        RepositoryInfo info =
                service.get(Service.path("repositories", repository), new Service.Parameters(), RepositoryInfo.class);
        String branch = git.text("symbolic-ref", "--short", "-q", "HEAD")
                .filter(name ->
                        info.branches().stream().anyMatch(one -> one.name().equals(name)))
                .orElse("");
        return Optional.of(
                new WorkTree(root, git.text("rev-parse", "--show-prefix").orElse(""), repository, branch));
    }

    private static String repository(Path root, Git git, Service service) {
        List<String> locations = new ArrayList<>(List.of(root.toString()));
        git.text("config", "--get-regexp", "^remote\\..*\\.url$")
                .ifPresent(text -> text.lines().forEach(line -> locations.add(line.substring(line.indexOf(' ') + 1))));
        List<Recognised> found = recognised(service, new Service.Parameters().addAll("location", locations));
        if (found.isEmpty()) {
            List<String> roots = git.text("rev-list", "--max-parents=0", "HEAD")
                    .map(text -> text.lines().toList())
                    .orElse(List.of());
            found = recognised(service, new Service.Parameters().addAll("commit", roots));
        }
        if (found.isEmpty()) {
            throw new ServiceProblem(
                    "No repository of the service was recognised in " + root
                            + ", neither by its remotes nor by its first commit. "
                            + "oddbeacon repos list shows them; --repo names one.",
                    ExitStatus.WRONG);
        }
        if (found.size() > 1) {
            throw new ServiceProblem(
                    root + " may belong to several repositories: "
                            + found.stream()
                                    .map(one -> one.repository() + " (" + one.reason() + ")")
                                    .collect(Collectors.joining("; "))
                            + ". Name one with --repo, and --under for the folder.",
                    ExitStatus.WRONG);
        }
        return found.getFirst().repository();
    }

    /** A setting of Git, here; empty if there is none. */
    public static String setting(String name) {
        return Git.HERE.text("config", name).orElse("");
    }

    private static List<Recognised> recognised(Service service, Service.Parameters parameters) {
        return service.get(Service.path("recognised") + parameters, new TypeReference<>() {});
    }

    /** A path of the repository, relative to the current folder. */
    public String local(String path) {
        return Path.of(prefix).relativize(Path.of(path)).toString();
    }

    /**
     * The path in the repository of a path as it is written where one stands; empty if it leads out of the work tree.
     */
    public Optional<String> inRepository(String local) {
        Path path = Path.of("").toAbsolutePath().resolve(local).normalize();
        Path real = realRoot();
        Path in = path.startsWith(real) ? real.relativize(path) : path.startsWith(root) ? root.relativize(path) : null;
        return Optional.ofNullable(in).map(Path::toString).filter(text -> !text.isEmpty());
    }

    private Path realRoot() {
        try {
            return root.toRealPath();
        } catch (IOException e) {
            return root;
        }
    }
}
