package dev.oddbeacon.api;

/**
 * A token to make.
 *
 * @param role {@code reader} by default; at most that of its account
 * @param days until it ends; 90 by default, at most 400
 */
public record NewToken(String name, String role, Integer days) {}
