package dev.oddbeacon.api;

/**
 * What a program is told that asks for somebody to sign in elsewhere: RFC 8628, section 3.2. The names of its fields are those of the protocol.
 *
 * @param device_code what the program asks with whether it was allowed
 * @param user_code what the person types, or compares
 * @param expires_in in seconds
 * @param interval seconds to wait between two questions
 */
@SuppressWarnings("MemberName")
public record DeviceGrant(
        String device_code,
        String user_code,
        String verification_uri,
        String verification_uri_complete,
        int expires_in,
        int interval) {
    /** What a program sends as {@code grant_type} with its device code: RFC 8628, section 3.4. */
    public static final String GRANT_TYPE = "urn:ietf:params:oauth:grant-type:device_code";
}
