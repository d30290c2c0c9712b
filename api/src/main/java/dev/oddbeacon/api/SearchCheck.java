package dev.oddbeacon.api;

import java.time.Instant;

/**
 * What a saved search found at some time, kept under a name: {@code GET /api/v1/saved-searches/{name}/checks}.
 *
 * @param by the account that kept it; null where nobody signs in
 * @param results how many, of those that the caller may see
 */
public record SearchCheck(String name, Instant at, String by, int results) {}
