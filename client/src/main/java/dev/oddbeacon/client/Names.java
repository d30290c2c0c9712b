package dev.oddbeacon.client;

import java.util.Optional;

/**
 * How files are called in what is printed: {@code repository/path}, or, within a work tree, by the path that other
 * programs can open where one stands.
 */
record Names(Optional<WorkTree> workTree) {
    String of(String repository, String path) {
        return start(repository) + shown(repository, path);
    }

    /** What stands before the path. */
    String start(String repository) {
        return isLocal(repository) ? "" : repository + "/";
    }

    /** The path as it is printed. */
    String shown(String repository, String path) {
        return isLocal(repository) ? workTree.get().local(path) : path;
    }

    /** The path that other programs can open. */
    Optional<String> local(String repository, String path) {
        return isLocal(repository) ? Optional.of(workTree.get().local(path)) : Optional.empty();
    }

    private boolean isLocal(String repository) {
        return workTree.isPresent() && workTree.get().repository().equals(repository);
    }
}
