package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * What a program signs in with.
 *
 * @param role at most that of its account
 * @param repositories the only ones that it sees, sorted; empty for all that its account sees
 * @param lastUsed to the minute; null if it was not used yet
 */
public record TokenInfo(
        long id,
        String account,
        String name,
        String role,
        List<String> repositories,
        Instant created,
        Instant ends,
        Instant lastUsed) {}
