package dev.oddbeacon.server.rosters;

import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.NewRoster;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.catalogue.Registered;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.repositories.NewRepositories;
import dev.oddbeacon.server.web.BadRequestException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * What is to be done so that what came of a roster is as the roster says.
 *
 * @param steps one for each repository that is listed or came of it
 * @param problem what is odd about the list as a whole
 */
record RosterPlan(List<Step> steps, Optional<String> problem) {
    static final int GRACE_DAYS = 7;

    enum Kind {
        NEW,
        CHANGED,
        SAME,
        LEAVING,
        LEFT_OUT
    }

    /**
     * @param known the repository that came of it, if one did
     * @param isDue whether one that leaves is to be taken out now
     * @param problem why it is left out or leaves
     */
    record Step(
            Kind kind,
            NewRepository wanted,
            Set<String> viewers,
            Optional<Repository> known,
            boolean isDue,
            Optional<String> problem) {}

    static RosterPlan of(NewRoster roster, List<Listed> listed, Registered registered, Instant now) {
        return new Planning(roster, registered, now).plan(listed);
    }

    List<Step> steps(Kind kind) {
        return steps.stream().filter(step -> step.kind == kind).toList();
    }

    /** Makes one plan. */
    private static final class Planning {
        private final NewRoster roster;
        private final Registered registered;
        private final Instant now;
        private final List<Glob> only;
        private final List<Step> steps = new ArrayList<>();
        private final Set<String> taken = new HashSet<>(); // names of this list

        Planning(NewRoster roster, Registered registered, Instant now) {
            this.roster = roster;
            this.registered = registered;
            this.now = now;
            this.only = roster.only().stream().map(Glob::ofName).toList();
        }

        RosterPlan plan(List<Listed> listed) {
            for (Listed each : listed) {
                if (only.isEmpty() || only.stream().anyMatch(glob -> glob.matches(each.name()))) {
                    steps.add(step(each));
                }
            }
            List<Repository> came = registered.all().stream()
                    .filter(repository -> repository.cameOf(roster.name()))
                    .toList();
            boolean isEmpty = listed.isEmpty() && !came.isEmpty();
            for (Repository repository : came) {
                if (!taken.contains(repository.name())) {
                    steps.add(leaving(repository, isEmpty));
                }
            }
            return new RosterPlan(
                    List.copyOf(steps),
                    isEmpty
                            ? Optional.of(
                                    "It lists nothing, and " + came.size()
                                            + " repositories came of it: nothing is taken out, as what it should list may be missing only now.")
                            : Optional.empty());
        }

        private Step step(Listed each) {
            NewRepository wanted = new NewRepository(
                    each.name(),
                    each.title(),
                    each.location(),
                    with(each.branches(), each.name(), NewRoster.Rule::branches),
                    with(each.labels(), each.name(), NewRoster.Rule::labels),
                    with(List.of(), each.name(), NewRoster.Rule::visibleTo));
            Set<String> viewers = Set.copyOf(wanted.visibleTo());
            Optional<Repository> known = registered.find(each.name());
            boolean isOurs =
                    known.filter(repository -> repository.cameOf(roster.name())).isPresent();
            Optional<String> problem = problem(wanted);
            if (problem.isEmpty() && !taken.add(each.name())) {
                problem = Optional.of("The list has the name " + each.name() + " twice.");
            } else if (problem.isEmpty() && known.isPresent() && !isOurs) {
                problem = Optional.of("There is a repository " + each.name() + " that did not come of this roster.");
            }
            if (problem.isPresent()) {
                if (isOurs) {
                    taken.add(each.name()); // what cannot be taken as it is now stays as it was
                }
                return new Step(Kind.LEFT_OUT, wanted, viewers, known.filter(_ -> isOurs), false, problem);
            }
            Kind kind =
                    known.isEmpty() ? Kind.NEW : isAsWanted(known.get(), wanted, viewers) ? Kind.SAME : Kind.CHANGED;
            return new Step(kind, wanted, viewers, known, false, Optional.empty());
        }

        private static boolean isAsWanted(Repository known, NewRepository wanted, Set<String> viewers) {
            return known.title().equals(wanted.title())
                    && known.location().equals(wanted.location())
                    && known.labels().equals(wanted.labels())
                    && known.wantedBranches().equals(wanted.branches())
                    && known.viewers().equals(viewers)
                    && known.goneSince().isEmpty();
        }

        private List<String> with(List<String> own, String name, Function<NewRoster.Rule, List<String>> part) {
            Set<String> all = new LinkedHashSet<>(own);
            for (NewRoster.Rule rule : roster.rules()) {
                if (Glob.ofName(rule.match()).matches(name)) {
                    all.addAll(part.apply(rule));
                }
            }
            return List.copyOf(all);
        }

        private static Optional<String> problem(NewRepository wanted) {
            try {
                NewRepositories.check(wanted);
                return Optional.empty();
            } catch (BadRequestException | RepositoryProblemException e) {
                return Optional.of(e.getMessage());
            }
        }

        private Step leaving(Repository repository, boolean isEmpty) {
            Instant since = repository.goneSince().orElse(now);
            Instant end = since.plus(Duration.ofDays(roster.graceDays()));
            return new Step(
                    Kind.LEAVING,
                    new NewRepository(
                            repository.name(),
                            repository.title(),
                            repository.location(),
                            repository.wantedBranches(),
                            repository.labels(),
                            List.copyOf(repository.viewers())),
                    repository.viewers(),
                    Optional.of(repository),
                    !isEmpty && !end.isAfter(now),
                    Optional.of("It is not in the list any more, and is taken out after "
                            + end.toString()
                                    .substring(0, "2026-05-01T12:00".length())
                                    .replace('T', ' ') + " UTC."));
        }
    }
}
