package dev.oddbeacon.server.access;

import java.util.Set;

/** The repositories that a caller may not see. */
public interface Visibility {
    /** Names of repositories that do not exist as far as the caller can tell. */
    Set<String> hiddenFrom(Caller caller);
}
