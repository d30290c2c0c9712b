package dev.oddbeacon.server.index;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.secrets.Secrets;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.springframework.stereotype.Component;

/**
 * Which group each repository is of. What is written for one group is not used by another: a segment has text of one
 * group alone.
 */
@Component
class Groups {
    private static final int DIGITS = 12; // of a digest

    private final int number;
    private final boolean byVisibility;

    Groups(Settings settings) {
        this.number = settings.groups().number();
        this.byVisibility = settings.groups().byVisibility();
    }

    /** Whether the commit that a history began with decides, so that forks of one origin are together. */
    boolean areOfOrigins() {
        return number > 1;
    }

    /** Whether there can be several. */
    boolean areSeveral() {
        return number > 1 || byVisibility;
    }

    /** Empty if it is not known before the history of the repository is looked at. */
    Optional<String> of(Repository repository) {
        return of(repository.firstCommit(), repository.viewers());
    }

    Optional<String> of(RepositoryRecord repository) {
        return of(repository.firstCommit(), repository.viewers());
    }

    private Optional<String> of(Optional<String> firstCommit, Set<String> viewers) {
        if (!areOfOrigins()) {
            return Optional.of(told(viewers));
        }
        return firstCommit.map(first -> Math.floorMod(first.hashCode(), number) + told(viewers));
    }

    private String told(Set<String> viewers) {
        return byVisibility
                ? "-" + Secrets.hash(String.join("\n", new TreeSet<>(viewers))).substring(0, DIGITS)
                : "";
    }
}
