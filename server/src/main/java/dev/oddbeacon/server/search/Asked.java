package dev.oddbeacon.server.search;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer.IndexState;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.search.Limits;
import dev.oddbeacon.core.search.Scope;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.FileType;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Trait;
import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.server.exclusion.ExclusionSets;
import dev.oddbeacon.server.index.Catalogue;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What a search names, held against the registered repositories. */
@Component
public class Asked {
    private static final List<String> TYPES = Stream.concat(FileTypes.all().stream().map(FileType::name), Stream.of(FileTypes.BINARY)).toList();
    private static final List<String> TRAITS = Arrays.stream(Trait.values()).map(Trait::label).toList();

    private final Catalogue catalogue;
    private final ExclusionSets sets;

    Asked(Catalogue catalogue, ExclusionSets sets) {
        this.catalogue = catalogue;
        this.sets = sets;
    }

    /** The scope that is asked for, with the exclusion sets that apply by default. */
    public Scope scope(ScopeParameters parameters) {
        for (String name : parameters.lifted()) {
            if (!sets.names().contains(name)) {
                throw new InvalidQueryException("There is no exclusion set " + name + "." + nearest(name, sets.names()));
            }
        }
        return parameters.scope(sets.defaults());
    }

    /** @throws InvalidQueryException if a repository, label, type, trait or exclusion set is named that there is not */
    public void check(Query query) {
        List<RepositoryInfo> all = catalogue.all();
        List<String> names = all.stream().map(RepositoryInfo::name).toList();
        List<String> labels = all.stream().flatMap(info -> info.labels().stream()).distinct().sorted().toList();
        for (Query.Limit limit : query.limits()) {
            switch (limit.kind()) {
                case REPO -> check(limit.glob(), names, "There is no repository ");
                case LABEL -> check(limit.glob(), labels, "No repository has the label ");
                case TYPE -> check(limit.glob(), TYPES, "There is no type ");
                case TRAIT -> checkName(limit.glob(), TRAITS, "There is no trait ");
                case EXCEPT -> checkName(limit.glob(), sets.names(), "There is no exclusion set ");
                case BRANCH, UNDER -> { }
            }
        }
    }

    /** @throws InvalidQueryException if there is no repository of a name */
    void checkRepository(String name) {
        checkName(name, catalogue.all().stream().map(RepositoryInfo::name).toList(), "There is no repository ");
    }

    private static void checkName(String name, List<String> known, String complaint) {
        if (!known.contains(name)) {
            throw new InvalidQueryException(complaint + name + "." + nearest(name, known));
        }
    }

    private static void check(String glob, List<String> known, String complaint) {
        if (known.stream().noneMatch(Glob.ofName(glob)::matches)) {
            throw new InvalidQueryException(complaint + glob + "." + nearest(glob, known));
        }
    }

    /** What of a query's scope can be searched now. */
    IndexState state(Query asked, CompiledQuery query, View view) {
        List<RepositoryInfo> inScope = inScope(query);
        int indexing = (int) inScope.stream().filter(Asked::isMissing).count();
        return new IndexState(indexing == 0, inScope.size(), indexing, Limits.missing(view, asked));
    }

    /** What of the past of a query's scope can be searched now. @param branches what it says of repositories, labels and branches */
    public IndexState stateOfPast(CompiledQuery branches, View view) {
        List<RepositoryInfo> inScope = inScope(branches);
        int reading = (int) inScope.stream().filter(info -> isMissing(info) || !info.history().complete()).count();
        return new IndexState(reading == 0, inScope.size(), reading, 0);
    }

    /** How much of the past the index has of a query's scope. */
    public CommitsAnswer.Covered covered(CompiledQuery branches) {
        List<RepositoryInfo.History> pasts = inScope(branches).stream().map(RepositoryInfo::history).toList();
        return new CommitsAnswer.Covered(pasts.stream().mapToLong(RepositoryInfo.History::commits).sum(), pasts.stream().mapToInt(RepositoryInfo.History::cut).sum(),
                pasts.stream().mapToInt(RepositoryInfo.History::withoutLines).sum());
    }

    private List<RepositoryInfo> inScope(CompiledQuery query) {
        return catalogue.all().stream().filter(info -> Limits.holdRepository(query, info.name(), Set.copyOf(info.labels()))).toList();
    }

    private static boolean isMissing(RepositoryInfo info) {
        return info.state().equals("waiting") || info.state().equals("indexing") || info.state().equals("failed") && info.branches().isEmpty();
    }

    private static String nearest(String wanted, List<String> names) {
        if (names.isEmpty()) {
            return " There are none yet.";
        }
        String lower = wanted.toLowerCase(Locale.ROOT);
        Optional<String> near = names.stream().min(Comparator.comparingInt(name -> EditDistance.of(lower, name.toLowerCase(Locale.ROOT))));
        return " The nearest is " + near.get() + ".";
    }
}
