package dev.oddbeacon.server.catalogue;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * What is known of a repository's origin, by asking it.
 *
 * @param tried when it was asked last
 * @param answered when it answered last, if it has
 * @param changed when it is known to have changed last
 * @param refs a digest of its branches and tags as they were fetched last; empty if they must be fetched
 * @param failures in a row, of asking or fetching
 * @param isListed whether it answered when it was asked last, so that what fails is fetching
 * @param behind what it has that is not indexed yet
 * @param problem why it does not answer, in words
 */
public record Checked(
        Instant tried,
        Optional<Instant> answered,
        Instant changed,
        String refs,
        int failures,
        boolean isListed,
        Behind behind,
        Optional<String> problem) {
    private static final int OF_QUIET_TIME = 20; // it is asked again after this part of the time that it was quiet
    private static final int MOST_DOUBLINGS = 16;
    private static final Duration LONGEST_BETWEEN_FETCHES = Duration.ofDays(1);

    /** In place of failures: what was fetched last is not tried again by itself; what comes after it is. */
    private static final int HELD = -1;

    /** What an origin has that is not indexed. @param commits if it is known how many */
    public record Behind(boolean is, OptionalInt commits) {
        public static final Behind NOT = new Behind(false, OptionalInt.empty());
        public static final Behind BY_SOME = new Behind(true, OptionalInt.empty());
    }

    /** Before it is asked for the first time. */
    static Checked never(Instant registered) {
        return new Checked(registered, Optional.empty(), registered, "", 0, false, Behind.NOT, Optional.empty());
    }

    /**
     * When to ask it again: soon if it changes often, later if it does not, and the later the more often it has failed.
     *
     * @param spread from -1 to 1: moves it by up to a tenth, so that not all are asked at once
     */
    public Instant next(Duration shortest, Duration longest, double spread) {
        Duration quiet = Duration.between(changed, tried).dividedBy(OF_QUIET_TIME);
        Duration wait = between(shortest, quiet, longest);
        if (failures > 0) {
            // what answers, and yet cannot be fetched, may be too large: trying costs much
            Duration most =
                    isListed && longest.compareTo(LONGEST_BETWEEN_FETCHES) < 0 ? LONGEST_BETWEEN_FETCHES : longest;
            wait = between(wait, shortest.multipliedBy(1L << Math.min(failures, MOST_DOUBLINGS)), most);
        }
        return tried.plus(wait).plusMillis(Math.round(wait.toMillis() * spread / 10));
    }

    private static Duration between(Duration least, Duration wanted, Duration most) {
        return wanted.compareTo(least) < 0 ? least : wanted.compareTo(most) > 0 ? most : wanted;
    }

    /** Its origin told its branches and tags, which are fetched. @param newest when its newest commit was made */
    Checked fetched(Instant now, String digest, Instant newest, Behind newBehind) {
        Instant change = digest.equals(refs) ? changed : refs.isEmpty() ? earlier(newest, now) : now;
        return new Checked(now, Optional.of(now), change, digest, 0, true, newBehind, Optional.empty());
    }

    private static Instant earlier(Instant a, Instant b) {
        return a.isBefore(b) ? a : b;
    }

    /** Its origin has what was fetched, or something else. */
    Checked listed(Instant now, boolean isAsFetched) {
        return new Checked(
                now,
                Optional.of(now),
                isAsFetched || refs.isEmpty() ? changed : now,
                refs,
                isAsFetched ? 0 : failures,
                true,
                isAsFetched ? behind : Behind.BY_SOME,
                isAsFetched ? Optional.empty() : problem);
    }

    /** It has ended the service, and waits for somebody, or for its origin to change. */
    Checked held() {
        return new Checked(Instant.EPOCH, answered, changed, "", HELD, isListed, behind, problem);
    }

    boolean isHeld() {
        return failures == HELD;
    }

    /** It was held, and its origin has this: nothing is done until that changes. */
    Checked adopted(Instant now, String digest) {
        return new Checked(now, Optional.of(now), changed, digest, 0, true, behind, Optional.empty());
    }

    /** Its origin did not answer when it was asked. */
    Checked silent(Instant now, String why) {
        return new Checked(
                now, answered, changed, refs, isHeld() ? HELD : failures + 1, false, behind, Optional.of(why));
    }

    /** It could not be fetched. */
    Checked notFetched(Instant now, String why) {
        return new Checked(now, answered, changed, "", failures + 1, isListed, behind, Optional.of(why));
    }

    /** All of it that is wanted is indexed. */
    Checked indexed() {
        return new Checked(tried, answered, changed, refs, failures, isListed, Behind.NOT, problem);
    }
}
