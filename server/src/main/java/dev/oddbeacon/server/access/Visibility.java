package dev.oddbeacon.server.access;

import dev.oddbeacon.server.catalogue.Registered;
import dev.oddbeacon.server.catalogue.Repository;
import java.util.function.Predicate;

/** Which repositories a caller may see; the others do not exist as far as the caller can tell. */
public interface Visibility {
    /**
     * What somebody may see.
     *
     * @param key equal for all who see the same, while {@link Registered#visibility} stays
     * @param everything whether also what is not registered yet, or not any more
     */
    record Sight(Object key, boolean everything, Predicate<Repository> sees) {
        /** By the name of a repository of the index. */
        boolean sees(String name, Registered registered) {
            return registered.find(name).map(sees::test).orElse(everything);
        }
    }

    /** @param registered what there is to see */
    Sight sight(Caller caller, Registered registered);
}
