package dev.oddbeacon.server.wire;

import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.Mailmap;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;

/** Converts commits of the core to the wire format. */
public final class CommitInfos {
    private static final int MOST_ZONE = 18 * 60;
    private static final int LONGEST_LISTED = 8_000; // characters

    private CommitInfos() {}

    public static CommitInfo info(String repository, Commit commit) {
        return new CommitInfo(
                repository,
                commit.id().toString(),
                person(commit.author()),
                when(commit.authored()),
                person(commit.committer()),
                when(commit.committed()),
                commit.parents().stream().map(Object::toString).toList(),
                Commit.summary(commit.message()),
                commit.message());
    }

    /** For lists of many: a long message is cut. */
    public static CommitInfo listed(String repository, Commit commit) {
        return info(repository, commit.withMessage(cut(commit.message())));
    }

    /** For lists of many, with people named as a mailmap does. */
    public static CommitInfo listed(String repository, Commit commit, Mailmap mailmap) {
        return info(repository, commit.withMessage(cut(commit.message())), mailmap);
    }

    private static String cut(String message) {
        return message.length() <= LONGEST_LISTED ? message : message.substring(0, LONGEST_LISTED) + "…";
    }

    /** Whether a place in a message stands in what lists show of it. */
    public static boolean isListed(int end) {
        return end <= LONGEST_LISTED;
    }

    /** Names people as a mailmap does. */
    public static CommitInfo info(String repository, Commit commit, Mailmap mailmap) {
        return info(
                repository,
                new Commit(
                        commit.id(),
                        commit.parents(),
                        mailmap.proper(commit.author()),
                        commit.authored(),
                        mailmap.proper(commit.committer()),
                        commit.committed(),
                        commit.message()));
    }

    public static CommitInfo.Person person(Commit.Person person) {
        return new CommitInfo.Person(person.name(), person.email());
    }

    /** Dates that no calendar has become the nearest that one has. */
    static OffsetDateTime when(Commit.Moment moment) {
        try {
            return OffsetDateTime.ofInstant(
                    Instant.ofEpochSecond(moment.seconds()),
                    ZoneOffset.ofTotalSeconds(60 * Math.clamp(moment.zoneMinutes(), -MOST_ZONE, MOST_ZONE)));
        } catch (DateTimeException e) {
            return OffsetDateTime.ofInstant(Instant.EPOCH, ZoneOffset.UTC);
        }
    }
}
