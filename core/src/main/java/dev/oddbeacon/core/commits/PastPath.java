package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.query.BranchFacts;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.FileFacts;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Traits;
import java.time.Instant;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;

/**
 * What conditions on files are told of a path in the past of a repository, where the file need not be there any more:
 * its type and traits as the path tells them; its size, last change and exclusion as the default branch has the file
 * now. For one thread.
 */
final class PastPath implements FileFacts {
    private final SearchContext context;
    private final BranchFacts facts;
    private final Optional<Integer> defaultBranch;
    private String path = "";
    private OptionalInt present = OptionalInt.empty();
    private boolean isLookedUp;

    PastPath(SearchContext context, String repository) {
        this.context = context;
        View view = context.view();
        this.defaultBranch = view.branchNumber(repository, "");
        this.facts = new BranchFacts(
                repository, defaultBranch.map(view::branch).map(Branch::labels).orElse(Set.of()), Optional.empty());
    }

    /** Goes to a path. */
    PastPath at(String newPath) {
        path = newPath;
        isLookedUp = false;
        return this;
    }

    /** The number of the file on the default branch, if it is there now. */
    private OptionalInt present() {
        if (!isLookedUp) {
            present = defaultBranch.map(branch -> snapshot(branch).find(path)).orElse(OptionalInt.empty());
            isLookedUp = true;
        }
        return present;
    }

    private SnapshotReader snapshot(int branch) {
        return context.view().snapshot(branch);
    }

    @Override
    public BranchFacts branch() {
        return facts;
    }

    @Override
    public String path() {
        return path;
    }

    @Override
    public boolean isOfType(FileCondition.Type condition) {
        return condition.type().matches(FileTypes.ofPath(path));
    }

    @Override
    public int traits() {
        return Traits.ofPath(path);
    }

    @Override
    public boolean isExcluded(String set) {
        return present().isPresent()
                && context.exclusions()
                        .excluded(set, snapshot(defaultBranch.orElseThrow()))
                        .get(present().getAsInt());
    }

    @Override
    public boolean isListed(FileCondition.Listed list) {
        return list.files().contains(facts.repository() + "/" + path);
    }

    @Override
    public OptionalLong bytes() {
        return present().isEmpty()
                ? OptionalLong.empty()
                : OptionalLong.of(
                        snapshot(defaultBranch.orElseThrow()).bytes(present().getAsInt()));
    }

    @Override
    public OptionalLong lastChange() {
        return present().isEmpty()
                ? OptionalLong.empty()
                : OptionalLong.of(context.view()
                        .lastChanges(defaultBranch.orElseThrow())
                        .seconds(present().getAsInt()));
    }

    @Override
    public Instant now() {
        return context.now();
    }
}
