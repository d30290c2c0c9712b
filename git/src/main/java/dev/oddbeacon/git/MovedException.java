package dev.oddbeacon.git;

/** A repository has moved for good, to another address of the same host. */
public final class MovedException extends RepositoryProblemException {
    private static final long serialVersionUID = 1;

    private final String location;

    MovedException(String from, String location) {
        super(from + " has moved to " + location + ".");
        this.location = location;
    }

    /** Where it is now. */
    public String location() {
        return location;
    }
}
