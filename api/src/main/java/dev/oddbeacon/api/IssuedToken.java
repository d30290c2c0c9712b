package dev.oddbeacon.api;

/**
 * A token that was just made.
 *
 * @param token what a program sends as {@code Authorization: Bearer}; it is told this once
 */
public record IssuedToken(TokenInfo info, String token) {}
