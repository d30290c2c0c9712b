package dev.oddbeacon.server.web;

import java.util.Optional;

/** Who changes something names the version that they have seen, so that nobody overwrites what they have not. */
public final class Versions {
    private Versions() {}

    /**
     * @param what is changed, such as "exclusion set"
     * @param there the version that there is; empty if it was removed
     * @throws ConflictException if that is not the one that was seen
     */
    public static void check(String what, String name, Optional<Long> there, long seen) {
        if (there.isEmpty()) {
            throw new ConflictException("The " + what + " " + name
                    + " was removed by somebody else meanwhile. Save it under a new name if it is still wanted.");
        }
        if (there.get() != seen) {
            throw changedMeanwhile(what, name);
        }
    }

    /** The same, found when it was written. */
    public static ConflictException changedMeanwhile(String what, String name) {
        return new ConflictException("Somebody else changed the " + what + " " + name
                + " meanwhile. Nothing was saved. Look at it again, and repeat the change.");
    }
}
