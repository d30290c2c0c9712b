package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * What was done, the newest first, as {@code GET /api/v1/records-of-change} tells.
 *
 * @param next where the page after this one begins; null if this is the last
 */
public record ChangesAnswer(List<Change> changes, Long next) {
    /**
     * One thing that was done.
     *
     * @param account null where accounts are off, and where signing in failed
     * @param token name of the token that a program sent; null in a browser's session
     * @param address that the request came from
     * @param action a word, such as {@code sign-in}
     * @param subject what it was done to
     */
    public record Change(
            long id, Instant happened, String account, String token, String address, String action, String subject) {}
}
