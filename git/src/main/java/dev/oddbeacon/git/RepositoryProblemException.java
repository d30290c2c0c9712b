package dev.oddbeacon.git;

/** A repository cannot be used as it stands; the message says why, for the person who registered it. */
public class RepositoryProblemException extends Exception {
    private static final long serialVersionUID = 1;

    public RepositoryProblemException(String message) {
        super(message);
    }

    public RepositoryProblemException(String message, Throwable cause) {
        super(message, cause);
    }
}
