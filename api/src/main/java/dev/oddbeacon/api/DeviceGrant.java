package dev.oddbeacon.api;

import com.fasterxml.jackson.annotation.JsonProperty;

/**
 * What a program is told that asks for somebody to sign in elsewhere: RFC 8628, section 3.2.
 *
 * @param deviceCode what the program asks with whether it was allowed
 * @param userCode what the person types, or compares
 * @param expiresIn in seconds
 * @param interval seconds to wait between two questions
 */
public record DeviceGrant(
        @JsonProperty("device_code") String deviceCode,
        @JsonProperty("user_code") String userCode,
        @JsonProperty("verification_uri") String verificationUri,
        @JsonProperty("verification_uri_complete") String verificationUriComplete,
        @JsonProperty("expires_in") int expiresIn,
        int interval) {}
