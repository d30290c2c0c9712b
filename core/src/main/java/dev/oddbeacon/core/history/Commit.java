package dev.oddbeacon.core.history;

import dev.oddbeacon.core.segment.ObjectId;
import java.util.List;

/**
 * A commit, as its author wrote it.
 *
 * @param parents none for a root, several for a merge
 * @param message with its line ends, whatever it is
 */
public record Commit(
        ObjectId id,
        List<ObjectId> parents,
        Person author,
        Moment authored,
        Person committer,
        Moment committed,
        String message) {
    /** Neither part holds a line feed or NUL; either may be empty. */
    public record Person(String name, String email) {
        @Override
        public String toString() {
            return name + " <" + email + ">";
        }
    }

    /** @param seconds since 1970, negative before */
    public record Moment(long seconds, int zoneMinutes) {}

    public Commit withMessage(String other) {
        return new Commit(id, parents, author, authored, committer, committed, other);
    }

    public boolean isMerge() {
        return parents.size() > 1;
    }

    /** The first paragraph of a message, as one line. */
    public static String summary(String message) {
        StringBuilder summary = new StringBuilder();
        for (String line : message.stripLeading().lines().toList()) {
            if (line.isBlank()) {
                break;
            }
            summary.append(summary.isEmpty() ? "" : " ").append(line.strip());
        }
        return summary.toString();
    }
}
