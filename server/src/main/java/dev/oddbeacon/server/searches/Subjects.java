package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.SavedSearch.Subject;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.access.SearchParameters;
import dev.oddbeacon.server.commits.CommitParameters;
import dev.oddbeacon.server.files.FileParameters;
import dev.oddbeacon.server.lines.LineParameters;
import dev.oddbeacon.server.symbols.SymbolParameters;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.web.RecordParameters;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;

/** What of a search can be kept, by its subject. */
public final class Subjects {
    private static final Map<Subject, Class<? extends SearchParameters>> PARAMETERS = Map.of(
            Subject.LINES, LineParameters.class,
            Subject.FILES, FileParameters.class,
            Subject.SYMBOLS, SymbolParameters.class,
            Subject.COMMITS, CommitParameters.class,
            Subject.SCOPE, ScopeAlone.class);
    /** What says how to answer, and is not kept. */
    private static final Set<String> PASSING =
            Set.of("cursor", "asker", "limit", "counts", "typing", "explain", "regions", "context", "opened");

    private Subjects() {}

    /** The parameters of a search that can be kept, but for those of its scope. */
    static Set<String> kept(Subject subject) {
        Set<String> names = new TreeSet<>(RecordParameters.names(PARAMETERS.get(subject)));
        names.removeAll(PASSING);
        return names;
    }

    /**
     * What of a search's parameters is kept: those that have values, by name.
     *
     * @throws BadRequestException if one is not known
     */
    public static SortedMap<String, List<String>> kept(Subject subject, Map<String, List<String>> parameters) {
        Set<String> known = kept(subject);
        Arrays.stream(ScopePart.values()).map(ScopePart::parameter).forEach(known::add);
        SortedMap<String, List<String>> kept = new TreeMap<>();
        parameters.forEach((name, values) -> {
            if (!known.contains(name)) {
                throw new BadRequestException(
                        PASSING.contains(name)
                                ? "\"" + name + "\" says how to answer, and is not kept with a search. Leave it out."
                                : "A search for " + Parameters.lower(subject) + " has no parameter \"" + name
                                        + "\". It has " + String.join(", ", known) + ".");
            }
            List<String> given = values == null
                    ? List.of()
                    : values.stream()
                            .filter(value -> value != null && !value.isEmpty())
                            .toList();
            if (!given.isEmpty()) {
                kept.put(name, given);
            }
        });
        return kept;
    }

    /** @throws BadRequestException if there is none of that name */
    public static Subject named(String subject) {
        return Arrays.stream(Subject.values())
                .filter(each -> Parameters.lower(each).equals(subject))
                .findFirst()
                .orElseThrow(() -> new BadRequestException(
                        "A saved search has a subject: lines, files, symbols, commits or scope, not \"" + subject
                                + "\"."));
    }

    /** What a search asks for, as somebody sees it; names in it are not checked. */
    static Query query(CallerContext context, Subject subject, Map<String, List<String>> parameters) {
        return filled(subject, parameters).query(context, scope(parameters));
    }

    /** A search as its parameters say. */
    public static SearchParameters filled(Subject subject, Map<String, List<String>> parameters) {
        return RecordParameters.fill(PARAMETERS.get(subject), given(parameters));
    }

    /** Where it looks. */
    public static ScopeParameters scope(Map<String, List<String>> parameters) {
        return ScopeParameters.of(given(parameters));
    }

    private static RecordParameters.Given given(Map<String, List<String>> parameters) {
        return name -> Optional.ofNullable(parameters.get(name))
                .map(values -> values.toArray(String[]::new))
                .orElse(null);
    }
}
