package dev.oddbeacon.client;

/** The service refused a request, failed at it, or was not reached; the message is for the person at the terminal. */
final class ServiceProblem extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final int exitStatus;

    ServiceProblem(String message, int exitStatus) {
        super(message);
        this.exitStatus = exitStatus;
    }

    int exitStatus() {
        return exitStatus;
    }
}
