package dev.oddbeacon.client.service;

import dev.oddbeacon.api.Problem;
import java.util.List;

/** The service refused a request, failed at it, or was not reached; the message is for the person at the terminal. */
public final class ServiceProblem extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int exitStatus;
    private final transient List<Problem.Mistake> mistakes;

    public ServiceProblem(String message, int exitStatus) {
        this(message, exitStatus, List.of());
    }

    public ServiceProblem(String message, int exitStatus, List<Problem.Mistake> mistakes) {
        super(message);
        this.exitStatus = exitStatus;
        this.mistakes = mistakes;
    }

    public int exitStatus() {
        return exitStatus;
    }

    /** Position in the search text; none if it is not the text that is wrong. */
    public List<Problem.Mistake> mistakes() {
        return mistakes;
    }
}
