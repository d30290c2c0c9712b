package dev.oddbeacon.api;

import java.util.List;

/**
 * A token to make.
 *
 * @param role {@code reader} by default; at most that of its account
 * @param days until it ends; 90 by default, at most 400
 * @param repositories the only ones that it sees, by name; all that its account sees by default
 */
public record NewToken(String name, String role, Integer days, List<String> repositories) {}
