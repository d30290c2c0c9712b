package dev.oddbeacon.server.access;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/**
 * Who sees which repositories: administrators all, others those that are visible to everybody who is signed in, to a
 * team of theirs, or to them. What is not known is denied.
 */
@Component
class Viewing implements Visibility {
    private final Catalogue catalogue;

    Viewing(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    @Override
    public Predicate<String> seenBy(Caller caller) {
        if (caller.may(Role.ADMINISTRATOR)) {
            return _ -> true;
        }
        if (caller.account().isEmpty()) {
            return _ -> false;
        }
        String person = Repository.person(caller.account().get().name());
        var teams =
                caller.account().get().teams().stream().map(Repository::team).toList();
        return name -> catalogue
                .find(name)
                .map(Repository::viewers)
                .filter(viewers -> viewers.contains(Repository.EVERYBODY)
                        || viewers.contains(person)
                        || teams.stream().anyMatch(viewers::contains))
                .isPresent();
    }
}
