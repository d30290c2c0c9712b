package dev.oddbeacon.server.index;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.secrets.Secrets;
import java.util.Optional;
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

    boolean areOfViewers() {
        return byVisibility;
    }

    /** Empty if it is not known before the repository is fetched. */
    Optional<String> of(RepositoryRecord repository) {
        return areOfOrigins() && repository.firstCommit().isEmpty()
                ? Optional.empty()
                : Optional.of(repository.firstCommit().map(this::numbered).orElse("") + viewers(repository));
    }

    private String numbered(String firstCommit) {
        return areOfOrigins() ? String.valueOf(Math.floorMod(firstCommit.hashCode(), number)) : "";
    }

    private String viewers(RepositoryRecord repository) {
        return byVisibility
                ? "-"
                        + Secrets.hash(String.join("\n", new TreeSet<>(repository.viewers())))
                                .substring(0, DIGITS)
                : "";
    }
}
