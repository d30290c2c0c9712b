package dev.oddbeacon.api;

import com.fasterxml.jackson.annotation.JsonProperty;

/**
 * The answer to a program that asks whether it was allowed: a token (RFC 6749, section 5.1), or why there is none (RFC
 * 8628, section 3.5).
 *
 * @param error {@code authorization_pending}, {@code slow_down}, {@code access_denied} or {@code expired_token}; null with
 *     a token
 */
public record GrantedToken(
        @JsonProperty("access_token") String accessToken,
        @JsonProperty("token_type") String tokenType,
        @JsonProperty("expires_in") Long expiresIn,
        String error) {}
