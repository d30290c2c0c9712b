package dev.oddbeacon.server.search;

import dev.oddbeacon.api.LinesAnswer.IndexState;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.search.Scope;
import dev.oddbeacon.server.index.Catalogue;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** A scope as it was asked for, held against the registered repositories. */
@Component
public class Asked {
    private final Catalogue catalogue;

    Asked(Catalogue catalogue) {
        this.catalogue = catalogue;
    }

    /** @throws InvalidQueryException if a repository or label is named that there is not */
    public Scope scope(List<String> repo, List<String> label, List<String> branches, List<String> under) {
        List<String> repositories = given(repo);
        List<String> labels = given(label);
        List<RepositoryInfo> all = catalogue.all();
        for (String glob : repositories) {
            if (all.stream().noneMatch(info -> Glob.ofName(glob).matches(info.name()))) {
                throw new InvalidQueryException("There is no repository " + glob + "." + nearest(glob, all.stream().map(RepositoryInfo::name).toList()),
                        InvalidQueryException.NOWHERE);
            }
        }
        List<String> known = all.stream().flatMap(info -> info.labels().stream()).distinct().sorted().toList();
        for (String glob : labels) {
            if (known.stream().noneMatch(Glob.ofName(glob)::matches)) {
                throw new InvalidQueryException("No repository has the label " + glob + "." + nearest(glob, known), InvalidQueryException.NOWHERE);
            }
        }
        return new Scope(repositories, labels, given(branches), given(under));
    }

    /** A parameter that is absent comes as one empty text. */
    private static List<String> given(List<String> values) {
        return values.stream().filter(value -> !value.isEmpty()).toList();
    }

    /** What of a scope can be searched now. */
    public IndexState state(Scope scope) {
        List<RepositoryInfo> inScope = catalogue.all().stream().filter(info -> scope.holdsRepository(info.name(), info.labels())).toList();
        int indexing = (int) inScope.stream().filter(Asked::isMissing).count();
        return new IndexState(indexing == 0, inScope.size(), indexing);
    }

    private static boolean isMissing(RepositoryInfo info) {
        return info.state().equals("waiting") || info.state().equals("indexing") || info.state().equals("failed") && info.branches().isEmpty();
    }

    private static String nearest(String wanted, List<String> names) {
        if (names.isEmpty()) {
            return " There are none yet.";
        }
        String lower = wanted.toLowerCase(Locale.ROOT);
        Optional<String> near = names.stream().min(Comparator.comparingInt(name -> distance(lower, name.toLowerCase(Locale.ROOT))));
        return " The nearest is " + near.get() + ".";
    }

    /** Edits that make one text the other (Levenshtein, "Binary codes capable of correcting deletions, insertions, and reversals"). */
    private static int distance(String a, String b) {
        int[] row = new int[b.length() + 1];
        for (int k = 0; k <= b.length(); k++) {
            row[k] = k;
        }
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int k = 1; k <= b.length(); k++) {
                int change = diagonal + (a.charAt(i - 1) == b.charAt(k - 1) ? 0 : 1);
                diagonal = row[k];
                row[k] = Math.min(change, Math.min(row[k], row[k - 1]) + 1);
            }
        }
        return row[b.length()];
    }
}
