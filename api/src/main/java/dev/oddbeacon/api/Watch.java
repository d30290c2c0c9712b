package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * Somebody's wish to be told when something new matches a saved search: {@code GET /api/v1/watches}.
 *
 * @param search its name
 * @param of whose search it is, as in {@link SavedSearch}
 * @param went whether what does not match any more is told as well
 * @param gathered how often messages are sent: {@code not}: at once; {@code hour} or {@code day}: together
 * @param mutedUntil no message is sent before; null if none is held back
 * @param webhook the address that messages are sent to; null for none
 * @param mail the address that mails are sent to; null for none
 * @param feed the path of the Atom feed, which needs no signing in: told only when the watch is made or asks for a new one
 * @param secret that messages are signed with: told only when it is made
 * @param problem why the search cannot be looked at, or messages cannot be delivered; null if all is well
 * @param last when something was told last; null if nothing was yet
 */
public record Watch(
        String search,
        String of,
        boolean went,
        String gathered,
        Instant mutedUntil,
        String webhook,
        String mail,
        String feed,
        String secret,
        String problem,
        Instant last) {

    /** How often messages are sent. */
    public enum Gathered {
        NOT,
        HOUR,
        DAY
    }

    /**
     * The body of {@code PUT /api/v1/watches/{search}}. What is null stays as it is, or as it is usual.
     *
     * @param mutedUntil a moment of the past lets messages go out again
     * @param webhook empty for none
     * @param mail empty for none
     * @param newFeed whether the address of the feed is replaced; the one before ends
     */
    public record Change(
            Boolean went, String gathered, Instant mutedUntil, String webhook, String mail, Boolean newFeed) {}

    /**
     * What came and what went in one repository: {@code GET /api/v1/watches/{search}/notices}.
     *
     * @param came at most a hundred
     * @param went at most a hundred; none unless the watch tells them
     */
    public record Notice(
            long id,
            Instant happened,
            String repository,
            int cameCount,
            List<Result> came,
            int wentCount,
            List<Result> went) {}

    /** A page of notices, the newest first. @param next the id to ask for what is before; null if nothing is */
    public record Notices(List<Notice> notices, Long next) {}

    /**
     * A message to a webhook, or by mail: {@code GET /api/v1/watches/{search}/deliveries}.
     *
     * @param channel {@code webhook} or {@code mail}
     * @param message its id, the same at each attempt
     * @param state {@code waiting}, {@code sent} or {@code failed}
     * @param answer what became of the last attempt
     * @param nextAttempt null if there is none
     */
    public record Delivery(
            long id,
            String channel,
            String message,
            Instant made,
            int notices,
            int attempts,
            String state,
            String answer,
            Instant nextAttempt) {}
}
