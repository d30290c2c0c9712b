package dev.oddbeacon.server.repositories;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.api.WhoSees;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Directory;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** Who may see a repository, as callers write it. */
@Component
public class ViewerNames {
    private static final int MOST = 500;

    private final Directory directory;
    private final Settings settings;

    ViewerNames(Directory directory, Settings settings) {
        this.settings = settings;
        this.directory = directory;
    }

    /** Who sees a new repository: whoever registers it, if nothing is said. */
    Set<String> atRegistration(Caller caller, List<String> wanted) {
        if (wanted != null) {
            return check(wanted);
        }
        return caller.account()
                .map(account -> Set.of(Repository.person(account.name())))
                .orElse(Set.of());
    }

    /** @throws BadRequestException if somebody is named who is not there */
    public Set<String> check(List<String> wanted) {
        if (wanted == null || wanted.size() > MOST) {
            throw new BadRequestException("Say who sees it in visibleTo: up to " + MOST
                    + " of everybody, team:NAME and person:NAME; an empty list for administrators alone.");
        }
        Set<String> checked = new TreeSet<>();
        for (String viewer : wanted) {
            if (Repository.ANYBODY.equals(viewer) && !settings.guests()) {
                throw new BadRequestException(
                        "Nobody searches here without signing in. An administrator can allow it: oddbeacon.guests.");
            }
            if (!isKnown(viewer)) {
                throw new BadRequestException(
                        "\"" + (viewer == null ? "" : Visible.escaped(viewer))
                                + "\" stands for nobody here. Take everybody, team:NAME of a team, or person:NAME of an account.");
            }
            checked.add(viewer);
        }
        return checked;
    }

    /** Everybody who sees what has these viewers, and why. */
    WhoSees whoSees(Set<String> viewers) {
        List<WhoSees.Person> people = new ArrayList<>();
        for (Account account : directory.accounts()) {
            List<String> why = Repository.viewersOf(account.name(), account.teams()).stream()
                    .filter(viewers::contains)
                    .collect(Collectors.toCollection(ArrayList::new));
            if (account.role() == Role.ADMINISTRATOR) {
                why.add(Role.ADMINISTRATOR.label());
            }
            if (!why.isEmpty()) {
                people.add(new WhoSees.Person(account.name(), account.displayName(), why));
            }
        }
        return new WhoSees(viewers.stream().sorted().toList(), people);
    }

    private boolean isKnown(String viewer) {
        return Repository.EVERYBODY.equals(viewer)
                || Repository.ANYBODY.equals(viewer)
                || directory.teams().stream()
                        .anyMatch(team -> Repository.team(team).equals(viewer))
                || viewer != null
                        && viewer.startsWith(Repository.person(""))
                        && directory
                                .account(viewer.substring(Repository.person("").length()))
                                .isPresent();
    }
}
