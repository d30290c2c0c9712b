package dev.oddbeacon.api;

import java.time.Instant;

/**
 * A roster that is followed.
 *
 * @param roster as it was given, with what was left open
 * @param read when it was read last; null if it never could be
 * @param problem why it cannot be read, or what is odd about it; null if all is well
 * @param repositories that came of it
 * @param leaving those of them that are not in the list any more
 * @param leftOut entries that cannot be registered
 */
public record RosterInfo(NewRoster roster, Instant read, String problem, int repositories, int leaving, int leftOut) {}
