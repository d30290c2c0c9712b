package dev.oddbeacon.client.worktree;

import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import java.io.IOException;
import java.nio.file.Files;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import tools.jackson.core.type.TypeReference;

/**
 * The files of a work tree that are not as they are indexed. A search of it asks the service for all others, and these
 * by an index of their own, so that its results are those of the work tree as it is now.
 */
public final class ChangedFiles implements AutoCloseable {
    private static final int MOST = 5_000;
    /** What Git says of lines that are not committed. */
    private static final String NO_COMMIT = "0".repeat(40);

    private final Edits edits;
    private final String indexedCommit;
    private final LocalIndex index;
    private final List<String> defaultSets;

    private ChangedFiles(Edits edits, String indexedCommit, LocalIndex index, List<String> defaultSets) {
        this.edits = edits;
        this.indexedCommit = indexedCommit;
        this.index = index;
        this.defaultSets = defaultSets;
    }

    /**
     * The changes of a work tree; empty if it is as it is indexed.
     *
     * @param withIgnored whether files that Git ignores there are searched as well
     */
    public static Optional<ChangedFiles> of(WorkTree tree, Service service, boolean withIgnored) {
        RepositoryInfo info = service.get(
                Service.path("repositories", tree.repository()), new Service.Parameters(), RepositoryInfo.class);
        Optional<RepositoryInfo.Branch> indexed = info.branches().stream()
                .filter(branch -> tree.branch().isEmpty() || branch.name().equals(tree.branch()))
                .findFirst();
        if (indexed.isEmpty()) {
            return Optional.empty(); // nothing of it is indexed yet, and the answer says so
        }
        Edits edits = Edits.since(tree.root(), indexed.get().commit(), withIgnored);
        if (edits.isEmpty() && edits.isIndexed()) {
            return Optional.empty();
        }
        if (edits.present().size() + edits.gone().size() > MOST) {
            throw new ServiceProblem(
                    (edits.present().size() + edits.gone().size())
                            + " files differ from what is indexed, which are too many to search here. --as-indexed leaves them as the index has them.",
                    ExitStatus.WRONG);
        }
        Branch branch = new Branch(
                tree.repository(), Set.copyOf(info.labels()), indexed.get().name(), NO_COMMIT, Instant.now(), true);
        List<ExclusionSetInfo> sets = service.get(Service.path("exclusion-sets"), new TypeReference<>() {});
        return Optional.of(new ChangedFiles(
                edits,
                indexed.get().commit(),
                LocalIndex.of(branch, contents(tree, edits), exclusions(sets)),
                sets.stream()
                        .filter(ExclusionSetInfo::byDefault)
                        .map(ExclusionSetInfo::name)
                        .toList()));
    }

    private static Map<String, byte[]> contents(WorkTree tree, Edits edits) {
        Map<String, byte[]> contents = new TreeMap<>();
        for (String path : edits.present()) {
            try {
                contents.put(path, Files.readAllBytes(tree.root().resolve(path)));
            } catch (IOException e) {
                throw new ServiceProblem(
                        path + ", which has changed, could not be read: " + e.getMessage(), ExitStatus.FAILED);
            }
        }
        return contents;
    }

    private static Exclusions exclusions(List<ExclusionSetInfo> sets) {
        Map<String, ExclusionSet> byName = new HashMap<>();
        sets.forEach(
                set -> byName.put(set.name(), ExclusionSet.parse(set.patterns()).set()));
        return (name, snapshot) -> byName.containsKey(name) ? byName.get(name).excluded(snapshot) : new BitSet();
    }

    /** Keeps the service from these files. */
    public Service.Parameters without(Service.Parameters parameters) {
        return parameters.addAll(
                ScopePart.NOT_UNDER.parameter(),
                Stream.concat(edits.present().stream(), edits.gone().stream())
                        .map(path -> "/" + Glob.escape(path))
                        .toList());
    }

    /** Where a search looks among them; empty if no file that changed today can be in its scope. */
    Optional<Scope> scope(Map<String, List<String>> parameters) {
        Map<ScopePart, List<String>> parts = new EnumMap<>(ScopePart.class);
        for (ScopePart part : ScopePart.values()) {
            parts.put(part, parameters.getOrDefault(part.parameter(), List.of()));
        }
        if (!parts.get(ScopePart.CHANGED_BEFORE).isEmpty()) {
            return Optional.empty();
        }
        List<String> lifted = parts.get(ScopePart.LIFT);
        List<String> sets = new ArrayList<>(parts.get(ScopePart.EXCEPT));
        defaultSets.stream().filter(name -> !lifted.contains(name)).forEach(sets::add);
        return Optional.of(new Scope(parts)
                .with(ScopePart.CHANGED_AFTER, List.of())
                .with(ScopePart.LIFT, List.of())
                .with(ScopePart.EXCEPT, sets.stream().distinct().toList()));
    }

    View view() {
        return index.view();
    }

    SearchContext context() {
        return index.context();
    }

    /** What was compared. */
    public Edits edits() {
        return edits;
    }

    public String indexedCommit() {
        return indexedCommit;
    }

    @Override
    public void close() {
        index.close();
    }
}
