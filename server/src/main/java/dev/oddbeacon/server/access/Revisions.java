package dev.oddbeacon.server.access;

import com.google.re2j.Pattern;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;

/** Resolves revisions: a branch, a tag, a commit's id or its beginning, {@code main~3}. */
public final class Revisions {
    private static final Pattern BEGINNING = Pattern.compile("[0-9a-f]{4,39}");
    private static final int DIGITS_SHOWN = 8;

    private Revisions() {}

    /**
     * The commit that a revision names; of an indexed branch, the one that is indexed.
     *
     * @param revision empty for the default branch
     * @throws NotFoundException if there is none, or there are several
     */
    public static ObjectId commit(CallerContext context, Repository repository, MirrorReader mirror, String revision)
            throws IOException {
        Optional<Integer> branch = context.view().branchNumber(repository.name(), revision);
        if (branch.isPresent()) {
            return ObjectId.of(context.view().branch(branch.get()).commit());
        }
        if (revision.isEmpty()) {
            throw notIndexed(repository);
        }
        return ObjectId.of(named(repository.name(), mirror, revision));
    }

    /** The error for a repository that has no indexed default branch yet. */
    public static NotFoundException notIndexed(Repository repository) {
        return new NotFoundException(repository.name() + " is not indexed yet (its state is "
                + repository.state().name().toLowerCase(Locale.ROOT) + ").");
    }

    /** The id of the commit that a revision names, whatever is indexed. */
    public static String named(String name, MirrorReader mirror, String revision) throws IOException {
        Optional<MirrorReader.Revision> found = mirror.commit(revision);
        if (found.isPresent()) {
            return found.get().id();
        }
        List<ObjectId> several = BEGINNING.matcher(revision).matches() ? mirror.beginningWith(revision) : List.of();
        if (several.size() > 1) {
            String ids = several.stream()
                    .map(id -> id.toString().substring(0, Math.min(40, revision.length() + DIGITS_SHOWN)))
                    .collect(Collectors.joining(", "));
            throw new NotFoundException(
                    revision + " is the beginning of several commits of " + name + ": " + ids + ". Give more of it.");
        }
        throw new NotFoundException("There is no revision " + revision + " in " + name
                + ". Give a branch, a tag or the beginning of a commit's id.");
    }
}
