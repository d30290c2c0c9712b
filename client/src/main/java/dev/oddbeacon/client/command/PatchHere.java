package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.WorkTree;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** Applies a replacement to the work tree that one stands in, through Git. */
final class PatchHere {
    private static final String WITHOUT_WARNINGS = "--whitespace=nowarn"; // white space is as it was

    private final Service service;
    private final WorkTree here;

    PatchHere(Service service, WorkTree here) {
        this.service = service;
        this.here = here;
    }

    int apply(Replacement wanted) {
        byte[] bytes = service.postBytes(
                Service.path("replacements", "patches")
                        + new Service.Parameters()
                                .add("repository", here.repository())
                                .addGiven("branch", here.branch()),
                wanted);
        try {
            Path kept = Files.createTempFile("oddbeacon-", ".patch");
            Files.write(kept, bytes);
            Set<String> after = paths("--numstat", kept.toString());
            Set<String> changed = new TreeSet<>(after);
            changed.addAll(paths("-R", "--numstat", kept.toString())); // as they were called before
            String uncommitted = git(Stream.concat(Stream.of("status", "--porcelain", "--"), changed.stream())
                    .toList());
            if (!uncommitted.isEmpty()) {
                Files.delete(kept);
                throw new ServiceProblem(
                        "Files that would change have uncommitted changes. Commit them, or take them out of the scope:\n"
                                + uncommitted.lines().map(String::strip).collect(Collectors.joining("\n")),
                        ExitStatus.WRONG);
            }
            git(List.of("apply", WITHOUT_WARNINGS, kept.toString()));
            Terminal.complain(Amounts.of(after.size(), "file") + " changed; git apply -R " + kept + " takes it back");
            return ExitStatus.FOUND;
        } catch (IOException e) {
            throw new ServiceProblem("The patch cannot be applied: " + e.getMessage(), ExitStatus.FAILED);
        }
    }

    private Set<String> paths(String... how) throws IOException {
        List<String> arguments = new ArrayList<>(List.of("apply", WITHOUT_WARNINGS, "-z"));
        arguments.addAll(List.of(how));
        return Stream.of(git(arguments).split("\0"))
                .map(line -> line.substring(line.lastIndexOf('\t') + 1))
                .filter(path -> !path.isEmpty())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    private String git(List<String> arguments) throws IOException {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(arguments);
        Process git =
                new ProcessBuilder(command).directory(here.root().toFile()).start();
        try {
            String out = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            String err = new String(git.getErrorStream().readAllBytes(), StandardCharsets.UTF_8);
            if (git.waitFor() != 0) {
                throw new ServiceProblem(
                        "Git does not take the patch; the work tree may be at another commit than was searched. "
                                + err.strip(),
                        ExitStatus.WRONG);
            }
            return out;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted");
        }
    }
}
