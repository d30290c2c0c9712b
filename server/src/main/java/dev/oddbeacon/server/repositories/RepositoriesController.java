package dev.oddbeacon.server.repositories;

import com.google.re2j.Pattern;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.Location;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.RepositoryInfos;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.web.BadRequestException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/repositories}: what is registered. */
@RestController
@RequestMapping("/api/v1/repositories")
class RepositoriesController {
    private static final Pattern NAME = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._-]{0,99}");
    private static final int LONGEST_LABEL = 100;
    private static final int MOST_LABELS = 50;
    private static final int MOST_BRANCHES = 200;
    private static final int LONGEST_TITLE = 200;
    private static final int LONGEST_LOCATION = 2_000;
    private static final int LONGEST_BRANCH = 250; // bytes, in UTF-8
    private static final int LONGEST_SHOWN = 100;

    private final Contexts contexts;
    private final IndexJobs jobs;

    RepositoriesController(Contexts contexts, IndexJobs jobs) {
        this.contexts = contexts;
        this.jobs = jobs;
    }

    @GetMapping
    List<RepositoryInfo> all(Caller caller) {
        try (CallerContext context = contexts.open(caller)) {
            return context.repositories().stream().map(RepositoryInfos::of).toList();
        }
    }

    @GetMapping("/{name}")
    RepositoryInfo one(Caller caller, @PathVariable String name) {
        return RepositoryInfos.of(find(caller, name));
    }

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    RepositoryInfo add(Caller caller, @RequestBody NewRepository wanted) throws RepositoryProblemException {
        check(wanted);
        try (CallerContext context = contexts.open(caller)) {
            if (context.find(wanted.name()).isPresent()) {
                throw taken(wanted.name());
            }
        }
        try {
            String title = Optional.ofNullable(wanted.title())
                    .filter(text -> !text.isBlank())
                    .orElse(wanted.name());
            return RepositoryInfos.of(jobs.register(wanted, title));
        } catch (DataIntegrityViolationException e) {
            throw taken(wanted.name());
        }
    }

    private static BadRequestException taken(String name) {
        return new BadRequestException(
                "There is a repository " + name + " already. Choose another name, or remove that one first.");
    }

    private static boolean isTooLong(String branch) {
        return branch.getBytes(StandardCharsets.UTF_8).length > LONGEST_BRANCH;
    }

    private static void checkVisible(String part, String text) {
        if (!Visible.isVisible(text)) {
            throw new BadRequestException("The " + part + " \"" + shown(text)
                    + "\" has characters that cannot be seen, such as line ends. Leave them out.");
        }
    }

    /** A value for a message: what was sent may be long, or hold characters that forge lines of a log. */
    private static String shown(String value) {
        String text = value == null ? "" : Visible.escaped(value);
        return text.length() > LONGEST_SHOWN ? text.substring(0, LONGEST_SHOWN) + "…" : text;
    }

    private static void check(NewRepository wanted) throws RepositoryProblemException {
        if (wanted.name() == null || !NAME.matcher(wanted.name()).matches()) {
            throw new BadRequestException("\"" + shown(wanted.name())
                    + "\" cannot be a repository's name. Take up to 100 letters, digits, dots, dashes "
                    + "and underscores, the first a letter or digit.");
        }
        if (wanted.location() == null
                || wanted.location().isBlank()
                || wanted.location().length() > LONGEST_LOCATION) {
            throw new BadRequestException(
                    "The location is missing or too long. Give a local folder, or a file://, http(s):// or ssh:// URL.");
        }
        if (wanted.title() != null && wanted.title().length() > LONGEST_TITLE) {
            throw new BadRequestException("The title has more than " + LONGEST_TITLE + " characters. Shorten it.");
        }
        checkVisible("title", Optional.ofNullable(wanted.title()).orElse(""));
        checkVisible("location", wanted.location());
        List<String> labels = Optional.ofNullable(wanted.labels()).orElse(List.of());
        List<String> branches = Optional.ofNullable(wanted.branches()).orElse(List.of());
        if (labels.size() > MOST_LABELS || branches.size() > MOST_BRANCHES) {
            throw new BadRequestException("A repository has at most " + MOST_LABELS + " labels and " + MOST_BRANCHES
                    + " branches. Take the most important ones.");
        }
        for (String label : labels) {
            if (label == null || label.isBlank() || label.length() > LONGEST_LABEL || !Visible.isVisible(label)) {
                throw new BadRequestException("The label \"" + shown(label) + "\" is empty, has more than "
                        + LONGEST_LABEL + " characters, or some that cannot be seen.");
            }
        }
        for (String branch : branches) {
            if (branch == null
                    || branch.isBlank()
                    || isTooLong(branch)
                    || !Visible.isVisible(branch)
                    || branch.startsWith("-")) {
                throw new BadRequestException("The branch \"" + shown(branch)
                        + "\" cannot be one: it is empty, has more than " + LONGEST_BRANCH
                        + " bytes, begins with a dash, or has characters that cannot be seen.");
            }
        }
        Location.parse(wanted.location());
    }

    @PostMapping("/{name}/refresh")
    @ResponseStatus(HttpStatus.ACCEPTED)
    RepositoryInfo refresh(Caller caller, @PathVariable String name) {
        Repository repository = find(caller, name);
        return RepositoryInfos.of(jobs.refresh(repository.id()).orElse(repository));
    }

    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(Caller caller, @PathVariable String name) throws IOException {
        jobs.remove(find(caller, name));
    }

    private Repository find(Caller caller, String name) {
        try (CallerContext context = contexts.open(caller)) {
            return context.repository(name);
        }
    }
}
