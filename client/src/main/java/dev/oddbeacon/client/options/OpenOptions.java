package dev.oddbeacon.client.options;

import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.WorkTree;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Option;

/** {@code --open}: from results to one's own editor. */
public final class OpenOptions {
    private static final int MOST_FILES = 40;

    @Option(
            names = "--open",
            description =
                    "Open what was found in $VISUAL or $EDITOR, each file at its first hit. Its work tree: the one stood in with --here, or folder.REPO of the client's settings.")
    private boolean open;

    /** A place to open. @param line from 1 @param column from 1; 0 if none is known */
    public record Target(String repository, String path, int line, int column) {}

    /** Whether places are wanted at all: a long list of results is not kept for nothing. */
    public boolean isWanted() {
        return open;
    }

    /** Opens files, each at the first of its places. Does nothing unless that is wanted. */
    public void open(Names names, Service service, List<Target> targets) {
        if (open && !targets.isEmpty()) {
            openAll(names, service, targets);
        }
    }

    public static void openAll(Names names, Service service, List<Target> targets) {
        ClientSettings settings = ClientSettings.read();
        Map<String, Target> firsts = new LinkedHashMap<>();
        targets.forEach(target -> firsts.putIfAbsent(target.repository + "/" + target.path, target));
        if (firsts.size() > MOST_FILES) {
            throw new ServiceProblem(
                    firsts.size() + " files were found; --open opens at most " + MOST_FILES
                            + ". Narrow the search, or give --limit.",
                    ExitStatus.WRONG);
        }
        Editor editor = editor(settings);
        Map<String, Path> folders = new LinkedHashMap<>();
        List<Editor.At> files = new ArrayList<>();
        for (Target target : firsts.values()) {
            Path folder = folders.computeIfAbsent(
                    target.repository, repository -> folder(names, service, settings, repository));
            Path file = folder.resolve(target.path);
            if (Files.exists(file)) {
                files.add(new Editor.At(file, Math.max(1, target.line), Math.max(1, target.column)));
            } else {
                Terminal.complain(file + " is not there; the work tree may be on another commit.");
            }
        }
        if (!files.isEmpty()) {
            Terminal.flush();
            editor.open(files);
        }
    }

    /** Opens one file of one's own, and waits until the editor has ended. */
    public static void open(Path file) {
        editor(ClientSettings.read()).open(List.of(new Editor.At(file, 1, 1)));
    }

    private static Editor editor(ClientSettings settings) {
        return settings.editor()
                .orElseThrow(() -> new ServiceProblem(
                        "No editor is known. Set $VISUAL or $EDITOR, or editor in " + settings.file() + ".",
                        ExitStatus.WRONG));
    }

    private static Path folder(Names names, Service service, ClientSettings settings, String repository) {
        Optional<Path> folder = names.workTree()
                .filter(tree -> tree.repository().equals(repository))
                .map(WorkTree::root)
                .or(() -> settings.folder(repository))
                .or(() -> registered(service, repository));
        return folder.filter(Files::isDirectory)
                .orElseThrow(() -> new ServiceProblem(
                        folder.map(path -> "The folder " + path + " of " + repository + " does not exist.")
                                        .orElse("No work tree of " + repository + " is known.")
                                + " Write folder." + repository + " = /path/to/it into " + settings.file()
                                + ", or stand in it and give --here.",
                        ExitStatus.WRONG));
    }

    /** The location of a repository, if it is a work tree on this machine. */
    private static Optional<Path> registered(Service service, String repository) {
        try {
            Path location = Path.of(service.get(
                            Service.path("repositories", repository), new Service.Parameters(), RepositoryInfo.class)
                    .location());
            return Files.exists(location.resolve(".git")) ? Optional.of(location) : Optional.empty();
        } catch (InvalidPathException e) {
            return Optional.empty();
        }
    }
}
