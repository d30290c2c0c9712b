package dev.oddbeacon.client.service;

import dev.oddbeacon.api.Recognised;
import dev.oddbeacon.api.RepositoryInfo;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
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
        Path root = Path.of(git("rev-parse", "--show-toplevel")
                .filter(text -> !text.isEmpty())
                .orElseThrow(() -> new ServiceProblem(
                        "--here works in a Git work tree, and " + Path.of("").toAbsolutePath() + " is in none.",
                        ExitStatus.WRONG)));
        List<String> locations = new ArrayList<>(List.of(root.toString()));
        git("config", "--get-regexp", "^remote\\..*\\.url$")
                .ifPresent(text -> text.lines().forEach(line -> locations.add(line.substring(line.indexOf(' ') + 1))));
        List<Recognised> found = recognised(service, new Service.Parameters().addAll("location", locations));
        if (found.isEmpty()) {
            List<String> roots = git("rev-list", "--max-parents=0", "HEAD")
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
        String repository = found.getFirst().repository();
        RepositoryInfo info =
                service.get(Service.path("repositories", repository), new Service.Parameters(), RepositoryInfo.class);
        String branch = git("symbolic-ref", "--short", "-q", "HEAD")
                .filter(name ->
                        info.branches().stream().anyMatch(one -> one.name().equals(name)))
                .orElse("");
        return new WorkTree(root, git("rev-parse", "--show-prefix").orElse(""), repository, branch);
    }

    /** A setting of Git, here; empty if there is none. */
    public static String setting(String name) {
        return git("config", name).orElse("");
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

    /** The output of Git, without the last line break; nothing if it fails. */
    private static Optional<String> git(String... arguments) {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        try {
            Process git = new ProcessBuilder(command)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            String output = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            return git.waitFor() == 0
                    ? Optional.of(output.endsWith("\n") ? output.substring(0, output.length() - 1) : output)
                    : Optional.empty();
        } catch (IOException e) {
            throw new ServiceProblem(
                    "--here asks Git, and git could not be started: " + e.getMessage(), ExitStatus.FAILED);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }
}
