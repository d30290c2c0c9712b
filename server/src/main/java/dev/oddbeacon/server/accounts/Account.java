package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.Role;
import java.time.Instant;
import java.util.Optional;
import java.util.SortedSet;

/**
 * A person who may sign in.
 *
 * @param teams by name
 * @param confirmed when the issuer that it signs in through last said who it is; empty for passwords
 */
public record Account(
        String name, String displayName, Role role, SortedSet<String> teams, Optional<Instant> confirmed) {}
