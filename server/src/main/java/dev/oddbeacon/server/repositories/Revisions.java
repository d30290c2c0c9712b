package dev.oddbeacon.server.repositories;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.index.Catalogue;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What the words for a revision stand for: a branch, a tag, a commit's id or its beginning, {@code main~3}. */
@Component
public class Revisions {
    private final Settings settings;
    private final Catalogue catalogue;

    Revisions(Settings settings, Catalogue catalogue) {
        this.settings = settings;
        this.catalogue = catalogue;
    }

    /** @throws NotFoundException if there is no such repository */
    public Catalogue.Entry repository(String name) {
        return catalogue.find(name).orElseThrow(() -> new NotFoundException("There is no repository " + name + "."));
    }

    /** The mirror of a repository; to be closed. */
    public MirrorReader mirror(Catalogue.Entry repository) throws IOException {
        return new MirrorReader(settings.mirror(repository.id()));
    }

    /**
     * The commit that a revision names; of an indexed branch, the one that is indexed.
     *
     * @param revision empty for the default branch
     * @throws NotFoundException if there is none, or there are several
     */
    public ObjectId commit(Catalogue.Entry repository, MirrorReader mirror, View view, String revision) throws IOException {
        String name = repository.info().name();
        Optional<Integer> rank = view.rank(name, revision);
        if (rank.isPresent()) {
            Branch branch = view.branch(rank.get());
            return ObjectId.of(branch.commit());
        }
        if (revision.isEmpty()) {
            throw new NotFoundException(name + " is not indexed yet (its state is " + repository.info().state() + ").");
        }
        return ObjectId.of(named(name, mirror, revision));
    }

    /** The id of the commit that a revision names, whatever is indexed. */
    static String named(String name, MirrorReader mirror, String revision) throws IOException {
        Optional<MirrorReader.Revision> found = mirror.commit(revision);
        if (found.isPresent()) {
            return found.get().id();
        }
        List<ObjectId> several = revision.matches("[0-9a-f]{4,39}") ? mirror.beginningWith(revision) : List.of();
        if (several.size() > 1) {
            throw new NotFoundException(revision + " is the beginning of several commits of " + name + ": " + several.stream().map(id -> id.toString().substring(0, Math.min(40, revision.length() + 8))).collect(Collectors.joining(", ")) + ". Give more of it.");
        }
        throw new NotFoundException("There is no revision " + revision + " in " + name + ". Give a branch, a tag or the beginning of a commit's id.");
    }
}
