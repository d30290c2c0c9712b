package dev.oddbeacon.api;

/** The answer to {@code POST /api/v1/repositories/refresh}. @param repositories that are queued */
public record Refreshed(int repositories) {}
