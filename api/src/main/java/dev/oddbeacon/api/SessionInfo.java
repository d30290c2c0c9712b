package dev.oddbeacon.api;

import java.util.List;

/**
 * Who asks, as {@code GET /api/v1/session} tells.
 *
 * @param accounts whether people sign in at this service
 * @param guests whether some repositories may be searched without signing in
 * @param person who is signed in; null if nobody is
 * @param issuer what the accounts are called that one can sign in with at {@code /sign-in/issuer}; null if there are none
 */
public record SessionInfo(boolean accounts, boolean guests, SignedIn person, String issuer) {
    /**
     * Somebody who is signed in.
     *
     * @param role {@code reader}, {@code maintainer} or {@code administrator}; a token may have less than its account
     * @param teams names, sorted
     * @param token the name of the token that was sent; null in a browser's session
     */
    public record SignedIn(String name, String displayName, String role, List<String> teams, String token) {}
}
