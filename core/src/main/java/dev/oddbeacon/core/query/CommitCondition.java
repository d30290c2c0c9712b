package dev.oddbeacon.core.query;

/** A condition on commits. */
public sealed interface CommitCondition extends Query {
    /**
     * What people, the message, or changed lines contain.
     *
     * @param part a text
     */
    record Mentions(Where where, Query part) implements CommitCondition {}

    /** The texts of a commit that a condition looks at: people, message, lines that were added, lines that were removed. */
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

    /** Committed on a day or later, or before it. */
    enum Side {
        AFTER,
        BEFORE
    }
}
