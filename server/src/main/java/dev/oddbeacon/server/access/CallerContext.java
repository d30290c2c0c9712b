package dev.oddbeacon.server.access;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer.IndexState;
import dev.oddbeacon.api.LinesAnswer.SearchedPart;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.commits.Reached;
import dev.oddbeacon.core.exclusion.ExclusionSet;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.FileType;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.catalogue.SetsInUse;
import dev.oddbeacon.server.index.Mirrors;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Stream;

/**
 * What one request sees, from its beginning to its end: the index, repositories and exclusion sets as far as its caller
 * may see them. For one thread, but for what {@link #search} says.
 */
public final class CallerContext implements AutoCloseable {
    private static final List<String> TYPES = Stream.concat(
                    FileTypes.all().stream().map(FileType::name), Stream.of(FileTypes.BINARY))
            .toList();
    private static final List<String> TRAITS =
            Arrays.stream(Trait.values()).map(Trait::label).toList();

    private static final int MOST_PARTS = 5;

    private final SearchContext search;
    private final Cursor.ViewId viewId;
    private final Runnable keepView;
    private final List<Repository> repositories;
    private final Predicate<String> sight;
    private final SetsInUse sets;
    private final Mirrors mirrors;

    CallerContext(
            SearchContext search,
            Cursor.ViewId viewId,
            Runnable keepView,
            List<Repository> repositories,
            Predicate<String> sight,
            SetsInUse sets,
            Mirrors mirrors) {
        this.search = search;
        this.viewId = viewId;
        this.keepView = keepView;
        this.repositories = repositories;
        this.sight = sight;
        this.sets = sets;
        this.mirrors = mirrors;
    }

    /** The context that searches use. */
    public SearchContext search() {
        return search;
    }

    public View view() {
        return search.view();
    }

    /** All repositories that the caller may see, by name. */
    public List<Repository> repositories() {
        return repositories;
    }

    /** Whether the caller may see what is said of a repository, even if it is gone by now. */
    public boolean sees(String repository) {
        return sight.test(repository);
    }

    /** @throws NotFoundException if there is none, as far as the caller can tell */
    public Repository repository(String name) {
        return find(name)
                .orElseThrow(() -> new NotFoundException(
                        "There is no repository " + name + ". GET /api/v1/repositories lists all."));
    }

    public Optional<Repository> find(String name) {
        return repositories.stream()
                .filter(repository -> repository.name().equals(name))
                .findFirst();
    }

    /**
     * The mirror of a repository; to be closed.
     *
     * @throws NotFoundException if it was not fetched yet
     */
    public MirrorReader mirror(Repository repository) throws IOException {
        if (!hasMirror(repository)) {
            throw new NotFoundException(repository.name() + " was not fetched yet.");
        }
        return mirrors.reader(repository.id());
    }

    /** Whether a repository was fetched yet. */
    public boolean hasMirror(Repository repository) {
        return mirrors.has(repository.id());
    }

    /** The exclusion sets that the caller has. */
    public SetsInUse sets() {
        return sets;
    }

    /** The names of the exclusion sets that every search applies. */
    public List<String> defaultSets() {
        return sets.defaults();
    }

    /** The patterns of an exclusion set. */
    public Optional<ExclusionSet> patterns(String set) {
        return sets.patterns(set);
    }

    /**
     * Hands out a cursor for the page that follows, and keeps the view for it.
     *
     * @param place 0 where only results are counted
     */
    public String cursor(Cursor.Kind kind, long place, int passed) {
        keepView.run();
        return new Cursor(kind, viewId, place, passed).toString();
    }

    /** A cursor for answers where the number of results passed is enough; null if there is no next page. */
    public String cursor(Cursor.Kind kind, Optional<Integer> passed) {
        return passed.map(count -> cursor(kind, 0, count)).orElse(null);
    }

    /** The scope that is asked for, with the exclusion sets that apply by default. */
    public Scope scope(ScopeParameters parameters) {
        parameters.of(ScopePart.LIFT).forEach(name -> checkName(name, sets.names(), "There is no exclusion set "));
        return parameters.scope(sets.defaults());
    }

    /** The scope that is asked for, where exclusion sets apply only if they are named. */
    public Scope scopeWithoutDefaults(ScopeParameters parameters) {
        return parameters.scope(List.of());
    }

    /** All that is searched by default. */
    public Scope everywhere() {
        return Scope.EVERYTHING.with(ScopePart.EXCEPT, sets.defaults());
    }

    /**
     * @throws InvalidQueryException if a repository, label, type, trait or exclusion set is named that does not exist
     */
    public void check(Query query) {
        for (FileCondition condition : query.conditions()) {
            switch (condition) {
                case FileCondition.Repository repository ->
                    check(repository.name(), names(), "There is no repository ");
                case FileCondition.Label label -> check(label.label(), labels(), "No repository has the label ");
                case FileCondition.Type type -> check(type.type(), TYPES, "There is no type ");
                case FileCondition.HasTrait trait -> checkName(trait.label(), TRAITS, "There is no trait ");
                case FileCondition.Except except -> checkName(except.set(), sets.names(), "There is no exclusion set ");
                case FileCondition.OnBranch _,
                        FileCondition.Under _,
                        FileCondition.Listed _,
                        FileCondition.Changed _,
                        FileCondition.Size _ -> {}
            }
        }
    }

    private List<String> labels() {
        return repositories.stream()
                .flatMap(repository -> repository.labels().stream())
                .distinct()
                .sorted()
                .toList();
    }

    private List<String> names() {
        return repositories.stream().map(Repository::name).toList();
    }

    /** @throws InvalidQueryException if there is no repository of a name */
    public void checkRepository(String name) {
        checkName(name, names(), "There is no repository ");
    }

    private static void checkName(String name, List<String> known, String complaint) {
        if (!known.contains(name)) {
            throw new InvalidQueryException(complaint + name + "." + nearest(name, known));
        }
    }

    private static void check(Glob glob, List<String> known, String complaint) {
        if (known.stream().noneMatch(glob::matches)) {
            throw new InvalidQueryException(complaint + glob + "." + nearest(glob.toString(), known));
        }
    }

    private static String nearest(String wanted, List<String> names) {
        if (names.isEmpty()) {
            return " There are none yet.";
        }
        String lower = wanted.toLowerCase(Locale.ROOT);
        Optional<String> near = names.stream()
                .min(Comparator.comparingInt(name -> EditDistance.of(lower, name.toLowerCase(Locale.ROOT))));
        return " The nearest is " + near.get() + ".";
    }

    /** The part of a query's scope that can be searched now. */
    public IndexState state(Query query) {
        List<Repository> inScope = inScope(CompiledQuery.of(query, CaseMode.AUTO));
        int indexing = (int) inScope.stream().filter(Repository::isIncomplete).count();
        List<SearchedPart> parts = indexing == 0
                ? List.of()
                : inScope.stream()
                        .filter(Repository::isInParts)
                        .limit(MOST_PARTS)
                        .map(CallerContext::part)
                        .toList();
        return new IndexState(indexing == 0, inScope.size(), indexing, Limits.missing(view(), query), parts);
    }

    private static SearchedPart part(Repository repository) {
        long bytes = repository.branches().stream()
                .mapToLong(Repository.IndexedBranch::bytes)
                .sum();
        long unread = repository.branches().stream()
                .mapToLong(Repository.IndexedBranch::unread)
                .sum();
        return new SearchedPart(repository.name(), bytes - unread, bytes);
    }

    /** The part of the past, within a query's scope, that can be searched now. */
    public IndexState stateOfPast(Query query) {
        List<Repository> inScope = inScope(Reached.branches(query));
        int reading = (int) inScope.stream().filter(this::isPastIncomplete).count();
        return new IndexState(reading == 0, inScope.size(), reading, 0, List.of());
    }

    /**
     * Whether a search of the past may miss commits of a repository: they are being read, or will be, now that its
     * branches have moved.
     */
    public boolean isPastIncomplete(Repository repository) {
        if (repository.isIncomplete() || !repository.past().complete()) {
            return true;
        }
        CommitGraph known = view().past(repository.name()).graph();
        return repository.past().problem().isEmpty()
                && repository.branches().stream()
                        .anyMatch(branch -> known.find(ObjectId.of(branch.commit())) == CommitGraph.UNKNOWN);
    }

    /** The part of the past, within a query's scope, that the index has. */
    public CommitsAnswer.Covered covered(Query query) {
        List<Repository.Past> pasts =
                inScope(Reached.branches(query)).stream().map(Repository::past).toList();
        return new CommitsAnswer.Covered(
                pasts.stream().mapToLong(Repository.Past::commits).sum(),
                pasts.stream().mapToInt(Repository.Past::cut).sum(),
                pasts.stream().mapToInt(Repository.Past::withoutLines).sum());
    }

    private List<Repository> inScope(CompiledQuery query) {
        if (repositories.isEmpty()) {
            return List.of();
        }
        if (!Limits.dividesRepositories(query)) { // what holds for one holds for all
            Repository any = repositories.getFirst();
            return Limits.holdRepository(query, any.name(), any.labels()) ? repositories : List.of();
        }
        return repositories.stream()
                .filter(repository -> Limits.holdRepository(query, repository.name(), repository.labels()))
                .toList();
    }

    @Override
    public void close() {
        search.close();
    }
}
