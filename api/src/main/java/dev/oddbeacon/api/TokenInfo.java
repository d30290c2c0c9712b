package dev.oddbeacon.api;

import java.time.Instant;

/**
 * What a program signs in with.
 *
 * @param role at most that of its account
 * @param lastUsed to the minute; null if it was not used yet
 */
public record TokenInfo(
        long id, String account, String name, String role, Instant created, Instant ends, Instant lastUsed) {}
