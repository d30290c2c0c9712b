package dev.oddbeacon.server.repositories;

import com.google.re2j.Pattern;
import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.Location;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.web.BadRequestException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/** What may be registered: everything that is sent is looked at before any of it is recorded. */
public final class NewRepositories {
    private static final Pattern NAME = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._-]{0,99}");
    private static final int LONGEST_LABEL = 100;
    private static final int MOST_LABELS = 50;
    private static final int MOST_BRANCHES = 200;
    private static final int LONGEST_TITLE = 200;
    private static final int LONGEST_LOCATION = 2_000;
    private static final int LONGEST_BRANCH = 250; // bytes, in UTF-8

    private NewRepositories() {}

    /** Whether a repository, or a roster, can have a name. */
    public static boolean isName(String name) {
        return name != null && NAME.matcher(name).matches();
    }

    private static boolean isTooLong(String branch) {
        return branch.getBytes(StandardCharsets.UTF_8).length > LONGEST_BRANCH;
    }

    private static void checkVisible(String part, String text) {
        if (!Visible.isVisible(text)) {
            throw new BadRequestException("The " + part + " \"" + Visible.shown(text)
                    + "\" has characters that cannot be seen, such as line ends. Leave them out.");
        }
    }

    /**
     * @throws BadRequestException if a part of it cannot be taken
     * @throws RepositoryProblemException if its location cannot be one
     */
    public static void check(NewRepository wanted) throws RepositoryProblemException {
        if (!isName(wanted.name())) {
            throw new BadRequestException("\"" + Visible.shown(wanted.name())
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
                throw new BadRequestException("The label \"" + Visible.shown(label) + "\" is empty, has more than "
                        + LONGEST_LABEL + " characters, or some that cannot be seen.");
            }
        }
        for (String branch : branches) {
            if (branch == null
                    || branch.isBlank()
                    || isTooLong(branch)
                    || !Visible.isVisible(branch)
                    || branch.startsWith("-")) {
                throw new BadRequestException("The branch \"" + Visible.shown(branch)
                        + "\" cannot be one: it is empty, has more than " + LONGEST_BRANCH
                        + " bytes, begins with a dash, or has characters that cannot be seen.");
            }
        }
        Location.parse(wanted.location());
        try {
            branches.forEach(IndexJobs::checkBranch);
        } catch (IllegalArgumentException e) {
            throw new BadRequestException(e.getMessage());
        }
    }
}
