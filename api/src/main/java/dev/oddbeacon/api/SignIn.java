package dev.oddbeacon.api;

/** Signs in, as {@code POST /api/v1/session} takes it. */
public record SignIn(String name, String password) {}
