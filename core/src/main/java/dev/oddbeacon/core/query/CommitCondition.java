package dev.oddbeacon.core.query;

/** What is asked of commits. */
public sealed interface CommitCondition extends Query {
    /**
     * What people, the message, or changed lines contain.
     *
     * @param part a text
     */
    record Mentions(Where where, Query part) implements CommitCondition {}

    /** Which texts of a commit are asked: people, message, lines that were added, lines that were removed. */
    enum Where {
        BY,
        SAYS,
        ADDS,
        REMOVES
    }

    /** Commits that changed a file at such a path. */
    record Touches(Glob path) implements CommitCondition {
        public Touches(String glob) {
            this(Glob.ofPath(glob));
        }
    }

    /**
     * When it was committed.
     *
     * @param day as {@link Days} reads it
     */
    record Committed(Side side, String day) implements CommitCondition {}

    /** From the beginning of a day on, or before it. */
    enum Side {
        AFTER,
        BEFORE
    }
}
