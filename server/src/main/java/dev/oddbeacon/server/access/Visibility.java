package dev.oddbeacon.server.access;

import java.util.function.Predicate;

/** Which repositories a caller may see; the others do not exist as far as the caller can tell. */
public interface Visibility {
    /** Says of a repository's name whether a caller may see it, as of now. */
    Predicate<String> seenBy(Caller caller);
}
