package dev.oddbeacon.api;

import java.util.List;

/**
 * An account to make or to change; what is null stays as it is, or takes its default.
 *
 * @param role {@code reader} by default
 * @param teams by name; those that do not exist are made
 */
public record NewAccount(String name, String displayName, String role, List<String> teams, String password) {}
