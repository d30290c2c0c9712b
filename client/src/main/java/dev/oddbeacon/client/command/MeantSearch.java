package dev.oddbeacon.client.command;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.client.service.Service;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** The saved search that a command is about. */
final class MeantSearch {
    static final String WHOSE =
            "Whose it is: everybody, team:NAME, me, or repository:NAME. Of several of one name the nearest is meant.";

    @Parameters(index = "0", paramLabel = "SEARCH", description = "The name of a saved search.")
    private String name;

    @Option(names = "--of", paramLabel = "WHOSE", description = WHOSE)
    private String of;

    String name() {
        return name;
    }

    Service.Parameters whose() {
        return new Service.Parameters().addGiven("of", of);
    }

    SavedSearch in(Service service) {
        return service.get(SearchesCommand.path(name), whose(), SavedSearch.class);
    }
}
