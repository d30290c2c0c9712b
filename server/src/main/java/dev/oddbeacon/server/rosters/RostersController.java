package dev.oddbeacon.server.rosters;

import dev.oddbeacon.api.NewRoster;
import dev.oddbeacon.api.RosterInfo;
import dev.oddbeacon.api.RosterPreview;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.repositories.NewRepositories;
import dev.oddbeacon.server.repositories.ViewerNames;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/rosters}: lists of repositories that are followed. For administrators: they say who sees what. */
@RestController
@RequestMapping("/api/v1/rosters")
class RostersController {
    private static final int MOST = 500; // of anything in a roster
    private static final int MOST_DAYS = 3_650;

    private final Rosters rosters;
    private final ViewerNames viewers;
    private final ChangeLog changes;

    RostersController(Rosters rosters, ViewerNames viewers, ChangeLog changes) {
        this.rosters = rosters;
        this.viewers = viewers;
        this.changes = changes;
    }

    @GetMapping
    List<RosterInfo> all() {
        return rosters.all();
    }

    @GetMapping("/{name}")
    RosterInfo one(@PathVariable String name) {
        return rosters.get(name);
    }

    /** What following a roster would do; it does nothing. */
    @PostMapping("/preview")
    RosterPreview preview(@RequestBody NewRoster wanted) throws RepositoryProblemException {
        return rosters.preview(checked(wanted));
    }

    /** Follows a roster from now on, in place of one of its name. */
    @PutMapping
    RosterInfo put(Caller caller, @RequestBody NewRoster wanted) throws RepositoryProblemException {
        RosterInfo followed = rosters.put(checked(wanted));
        changes.add(caller, "roster-followed", wanted.name());
        return followed;
    }

    /** Reads a roster now, and does what it says. */
    @PostMapping("/{name}/refresh")
    RosterInfo refresh(@PathVariable String name) {
        return rosters.read(name);
    }

    /** Follows a roster no more. The repositories that came of it stay. */
    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(Caller caller, @PathVariable String name) {
        rosters.remove(name);
        changes.add(caller, "roster-removed", name);
    }

    private NewRoster checked(NewRoster wanted) {
        if (!NewRepositories.isName(wanted.name())) {
            throw new BadRequestException(
                    "\"" + Visible.shown(wanted.name())
                            + "\" cannot be a roster's name. Take up to 100 letters, digits, dots, dashes and underscores, the first a letter or digit.");
        }
        if (wanted.source() == null || wanted.source().isBlank()) {
            throw new BadRequestException(
                    "The source is missing. Give a folder, a file or an address with a list, or a repository with the path of one.");
        }
        int days = Optional.ofNullable(wanted.graceDays()).orElse(RosterPlan.GRACE_DAYS);
        if (days < 0 || days > MOST_DAYS) {
            throw new BadRequestException("graceDays must be a number from 0 to " + MOST_DAYS + ".");
        }
        List<NewRoster.Rule> rules =
                list(wanted.rules()).stream().map(this::checked).toList();
        List<String> only = list(wanted.only());
        only.forEach(glob -> present(glob, "only"));
        return new NewRoster(wanted.name(), wanted.source(), wanted.path(), only, rules, days);
    }

    private NewRoster.Rule checked(NewRoster.Rule rule) {
        if (rule == null) {
            throw new BadRequestException("A rule is missing.");
        }
        List<String> branches = list(rule.branches());
        try {
            branches.forEach(branch -> IndexJobs.checkBranch(present(branch, "branches")));
        } catch (IllegalArgumentException e) {
            throw new BadRequestException(e.getMessage());
        }
        List<String> labels = list(rule.labels());
        labels.forEach(label -> present(label, "labels"));
        return new NewRoster.Rule(
                present(rule.match(), "match"), labels, branches, List.copyOf(viewers.check(list(rule.visibleTo()))));
    }

    private static String present(String text, String what) {
        if (text == null || text.isBlank()) {
            throw new BadRequestException(
                    "In " + what + " of a roster there is an empty text. Leave it out, or fill it.");
        }
        return text;
    }

    private static <T> List<T> list(List<T> given) {
        if (given != null && given.size() > MOST) {
            throw new BadRequestException("A roster has at most " + MOST + " of anything.");
        }
        return given == null ? List.of() : given;
    }
}
