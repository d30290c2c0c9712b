package dev.oddbeacon.api;

/**
 * The answer to a program that asks whether it was allowed: a token (RFC 6749, section 5.1), or why there is none (RFC
 * 8628, section 3.5). The names of its fields are those of the protocols.
 *
 * @param error {@code authorization_pending}, {@code slow_down}, {@code access_denied} or {@code expired_token}; null with
 *     a token
 */
@SuppressWarnings("MemberName")
public record GrantedToken(String access_token, String token_type, Long expires_in, String error) {}
