package dev.oddbeacon.api;

/**
 * Makes the first account, as {@code POST /api/v1/session/first} takes it.
 *
 * @param secret from the link that the service prints while there is no administrator
 */
public record FirstAdministrator(String secret, String name, String displayName, String password) {}
