package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.Role;
import java.util.SortedSet;

/** A person who may sign in. @param teams by name */
public record Account(String name, String displayName, Role role, SortedSet<String> teams) {}
