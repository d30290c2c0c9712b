package dev.oddbeacon.client.output;

import dev.oddbeacon.client.worktree.WorkTree;
import java.util.Optional;

/**
 * How files are called in what is printed: {@code repository/path}, or, within a work tree, by the path that other
 * programs can open where one stands.
 */
public record Names(Optional<WorkTree> workTree) {
    public String of(String repository, String path) {
        return start(repository) + shown(repository, path);
    }

    /** The part before the path. */
    public String start(String repository) {
        return isLocal(repository) ? "" : repository + "/";
    }

    /** The path as it is printed. */
    public String shown(String repository, String path) {
        return isLocal(repository) ? workTree.get().local(path) : path;
    }

    /** The path that other programs can open. */
    public Optional<String> local(String repository, String path) {
        return isLocal(repository) ? Optional.of(workTree.get().local(path)) : Optional.empty();
    }

    private boolean isLocal(String repository) {
        return workTree.isPresent() && workTree.get().repository().equals(repository);
    }
}
