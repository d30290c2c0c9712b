package dev.oddbeacon.client.command;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.client.service.Service;
import java.util.Optional;

/** A command that searches, as far as its search can be kept under a name. */
public interface SearchToKeep {
    /** The parameters of its search, without those that only say how to answer. */
    Service.Parameters toKeep();

    /** What it searches; the name of the command, unless it says another. */
    default String subject() {
        return "";
    }

    /** What stands instead of what it finds. */
    default Optional<SavedSearch.Instead> instead() {
        return Optional.empty();
    }
}
