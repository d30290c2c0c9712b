package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.Role;
import java.time.Instant;

/** What a program signs in with. @param account name of the account that it acts for */
public record Token(long id, String account, String name, Role role, Instant ends) {}
