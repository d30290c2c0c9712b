package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * An account.
 *
 * @param role {@code reader}, {@code maintainer} or {@code administrator}
 * @param teams names, sorted
 * @param ended when it was ended; null while its person may sign in
 */
public record AccountInfo(
        String name, String displayName, String role, List<String> teams, Instant created, Instant ended) {}
