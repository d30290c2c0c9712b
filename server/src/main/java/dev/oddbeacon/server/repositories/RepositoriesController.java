package dev.oddbeacon.server.repositories;

import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.Refreshed;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.Viewers;
import dev.oddbeacon.api.WhoSees;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryInfos;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/repositories}: what is registered. */
@RestController
@RequestMapping("/api/v1/repositories")
class RepositoriesController {
    private final Contexts contexts;
    private final IndexJobs jobs;
    private final ViewerNames viewers;
    private final ChangeLog changes;
    private final Events events;
    private final RepositoryInfos infos;

    RepositoriesController(
            Contexts contexts,
            IndexJobs jobs,
            ViewerNames viewers,
            ChangeLog changes,
            Events events,
            RepositoryInfos infos) {
        this.contexts = contexts;
        this.jobs = jobs;
        this.viewers = viewers;
        this.changes = changes;
        this.events = events;
        this.infos = infos;
    }

    @Operation(
            summary = "The registered repositories, by name",
            description =
                    "All of them, unless limit says how many; the next page begins after the last name of this one.")
    @GetMapping
    List<RepositoryInfo> all(
            Caller caller,
            @Parameter(description = "a glob that names match") @RequestParam(defaultValue = "*") String match,
            @Parameter(description = "text in a name, title, label or state, in any case")
                    @RequestParam(defaultValue = "")
                    String find,
            @Parameter(description = "names; only those") @RequestParam(required = false) List<String> name,
            @Parameter(description = "waiting, indexing, ready or failed") @RequestParam(defaultValue = "")
                    String state,
            @Parameter(description = "a name; those that come after it") @RequestParam(defaultValue = "") String after,
            @RequestParam(required = false) Integer limit) {
        if (limit != null && limit < 1) {
            throw new BadRequestException("limit is 1 or more, not " + limit + ".");
        }
        Optional<State> wanted =
                state.isEmpty() ? Optional.empty() : Optional.of(Parameters.oneOf(State.values(), "state", state));
        Glob glob = Glob.ofName(match);
        Set<String> names = name == null ? Set.of() : Set.copyOf(name);
        try (CallerContext context = contexts.open(caller)) {
            return found(context, find)
                    .filter(repository -> repository.name().compareTo(after) > 0
                            && (names.isEmpty() || names.contains(repository.name()))
                            && glob.matches(repository.name())
                            && wanted.stream().allMatch(only -> only == repository.state()))
                    .limit(limit == null ? Long.MAX_VALUE : limit)
                    .map(infos::of)
                    .toList();
        }
    }

    /** Those that have a text in their name, title, labels or state. */
    private static Stream<Repository> found(CallerContext context, String text) {
        String wanted = text.strip().toLowerCase(Locale.ROOT);
        return context.repositories().stream()
                .filter(repository -> wanted.isEmpty()
                        || Stream.concat(
                                        Stream.of(
                                                repository.name(),
                                                repository.title(),
                                                repository.state().name()),
                                        repository.labels().stream())
                                .anyMatch(each -> each.toLowerCase(Locale.ROOT).contains(wanted)));
    }

    @GetMapping("/{name}")
    RepositoryInfo one(Caller caller, @PathVariable String name) {
        return infos.of(find(caller, name));
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    RepositoryInfo add(Caller caller, @RequestBody NewRepository wanted) throws RepositoryProblemException {
        NewRepositories.check(wanted);
        try (CallerContext context = contexts.open(caller)) {
            if (context.find(wanted.name()).isPresent()) {
                throw taken(wanted.name());
            }
        }
        try {
            String title = Optional.ofNullable(wanted.title())
                    .filter(text -> !text.isBlank())
                    .orElse(wanted.name());
            RepositoryInfo added = infos.of(jobs.register(new IndexJobs.Wanted(
                    wanted, title, viewers.atRegistration(caller, wanted.visibleTo()), Optional.empty())));
            changes.add(caller, "repository-added", wanted.name());
            return added;
        } catch (
                DataIntegrityViolationException
                        e) { // of a repository that the caller does not see, or at the same time
            throw new BadRequestException("A repository cannot have the name " + wanted.name()
                    + ". Choose another, or ask an administrator.");
        }
    }

    private static BadRequestException taken(String name) {
        return new BadRequestException(
                "There is a repository " + name + " already. Choose another name, or remove that one first.");
    }

    @PostMapping("/{name}/refresh")
    @ResponseStatus(HttpStatus.ACCEPTED)
    RepositoryInfo refresh(Caller caller, @PathVariable String name) {
        Repository repository = find(caller, name);
        changes.add(caller, "repository-refreshed", name);
        return infos.of(jobs.refresh(repository.id()).orElse(repository));
    }

    @Operation(
            summary = "Queues repositories to be fetched and indexed",
            description = "All of them, or those that have a text in their name, title, labels or state.")
    @PostMapping("/refresh")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Refreshed refreshAll(Caller caller, @RequestParam(defaultValue = "") String find) {
        List<Repository> wanted;
        try (CallerContext context = contexts.open(caller)) {
            wanted = found(context, find).toList();
        }
        changes.add(caller, "repositories-refreshed", wanted.size() + (find.isBlank() ? "" : ", found by " + find));
        wanted.forEach(repository -> jobs.refresh(repository.id()));
        return new Refreshed(wanted.size());
    }

    /**
     * Fetches, indexes and reads a repository anew, and leaves nothing of what was there before: for a text that should
     * never have been pushed, once the history of the repository was rewritten.
     */
    @PostMapping("/{name}/purge")
    @ResponseStatus(HttpStatus.ACCEPTED)
    RepositoryInfo purge(Caller caller, @PathVariable String name) {
        Repository repository = find(caller, name);
        changes.add(caller, "repository-purged", name);
        return infos.of(jobs.purge(repository.id()).orElse(repository));
    }

    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(Caller caller, @PathVariable String name) throws IOException {
        Repository repository = find(caller, name);
        if (repository.roster().isPresent() && repository.goneSince().isEmpty()) {
            throw new ConflictException(name + " is in a roster that is followed, which would bring it back. "
                    + "Take it out of that list, or ask an administrator to follow less of it.");
        }
        jobs.remove(repository);
        changes.add(caller, "repository-removed", name);
    }

    /** Who may see a repository, and why. */
    @GetMapping("/{name}/viewers")
    WhoSees viewers(Caller caller, @PathVariable String name) {
        return viewers.whoSees(find(caller, name).viewers());
    }

    /** Says who may see a repository; it takes effect with the next request of anybody. */
    @PutMapping("/{name}/viewers")
    WhoSees show(Caller caller, @PathVariable String name, @RequestBody Viewers wanted) {
        Repository repository = find(caller, name);
        Set<String> checked = viewers.check(wanted.visibleTo());
        jobs.show(repository.id(), checked);
        events.send("visibility", Optional.empty(), Map.of());
        WhoSees now = viewers.whoSees(checked);
        changes.add(caller, "repository-shown", name + ": " + String.join(", ", now.visibleTo()));
        return now;
    }

    private Repository find(Caller caller, String name) {
        try (CallerContext context = contexts.open(caller)) {
            return context.repository(name);
        }
    }
}
