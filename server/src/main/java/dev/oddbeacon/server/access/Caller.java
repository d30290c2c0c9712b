package dev.oddbeacon.server.access;

/** Whoever sent a request. Nobody signs in yet, so it is everybody. */
public record Caller() {
    public static final Caller EVERYBODY = new Caller();
}
