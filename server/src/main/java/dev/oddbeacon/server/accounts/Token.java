package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.Role;
import java.time.Instant;
import java.util.Optional;
import java.util.SortedSet;

/**
 * What a program signs in with.
 *
 * @param account name of the account that it acts for
 * @param repositories the only ones that it sees; empty for all that the account sees
 */
public record Token(
        long id, String account, String name, Role role, Optional<SortedSet<String>> repositories, Instant ends) {}
