package dev.oddbeacon.client.worktree;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.ServiceProblem;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Collections;
import java.util.List;
import java.util.NavigableSet;
import java.util.TreeSet;

/**
 * Where a work tree is not as a commit has it, as Git tells it, by paths from its root.
 *
 * @param since the commit
 * @param isIndexed whether that is the indexed commit; if the work tree does not have that one, its own is taken
 * @param present files that are new or changed
 * @param gone files that the commit has and the work tree has not
 */
public record Edits(String since, boolean isIndexed, NavigableSet<String> present, NavigableSet<String> gone) {
    private static final List<String> UNTRACKED = List.of("ls-files", "-z", "--others", "--exclude-standard");
    private static final List<String> IGNORED =
            List.of("ls-files", "-z", "--others", "--ignored", "--exclude-standard");

    public Edits {
        present = Collections.unmodifiableNavigableSet(present);
        gone = Collections.unmodifiableNavigableSet(gone);
    }

    /**
     * What changed in a work tree.
     *
     * @param indexed the commit that is indexed
     * @param withIgnored whether files that Git ignores there are new files as well
     */
    public static Edits since(Path root, String indexed, boolean withIgnored) {
        Git git = new Git(root);
        boolean isThere = git.text("cat-file", "-e", indexed + "^{commit}").isPresent();
        String since = isThere
                ? indexed
                : git.text("rev-parse", "HEAD")
                        .orElseThrow(() -> new ServiceProblem(
                                root + " has no commit yet, so it cannot be compared with the index.",
                                ExitStatus.WRONG));
        NavigableSet<String> present = new TreeSet<>();
        NavigableSet<String> gone = new TreeSet<>();
        // without optional locks: a refreshed list of files would be written into the repository
        for (String path : ask(
                git,
                List.of(
                        "--no-optional-locks",
                        "diff",
                        "--no-ext-diff",
                        "--no-textconv",
                        "--no-renames",
                        "--ignore-submodules=all",
                        "--name-only",
                        "-z",
                        since,
                        "--"))) {
            (isFile(root, path) ? present : gone).add(path);
        }
        addFiles(root, ask(git, UNTRACKED), present);
        if (withIgnored) {
            addFiles(root, ask(git, IGNORED), present);
        }
        return new Edits(since, isThere, present, gone);
    }

    private static void addFiles(Path root, List<String> paths, NavigableSet<String> present) {
        paths.stream().filter(path -> isFile(root, path)).forEach(present::add);
    }

    private static boolean isFile(Path root, String path) {
        return Files.isRegularFile(root.resolve(path), LinkOption.NOFOLLOW_LINKS);
    }

    private static List<String> ask(Git git, List<String> arguments) {
        return git.names(arguments.toArray(String[]::new))
                .orElseThrow(() -> new ServiceProblem(
                        "Git could not compare the work tree: git " + String.join(" ", arguments) + " failed in "
                                + git.folder() + ".",
                        ExitStatus.FAILED));
    }

    /** Whether the work tree is as the commit has it. */
    public boolean isEmpty() {
        return present.isEmpty() && gone.isEmpty();
    }
}
