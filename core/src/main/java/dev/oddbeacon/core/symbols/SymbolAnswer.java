package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.search.Excerpt.Line;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.List;
import java.util.Optional;

/**
 * The answer to a search for symbols.
 *
 * @param symbols places where one is declared or used, once for each repository, branch and path
 * @param exact whether the counts are; lower bounds otherwise
 * @param kinds declarations by kind
 * @param roles declarations and uses
 * @param certainties uses by how surely they mean what is asked for, those that are not wanted included; empty if only
 * a name is asked for
 * @param next how many to pass over for the next page
 */
public record SymbolAnswer(
        long symbols,
        int files,
        int repositories,
        boolean exact,
        Optional<Stop> stopped,
        Facets facets,
        List<Share> kinds,
        List<Share> roles,
        List<Share> certainties,
        List<Symbol> page,
        Optional<Integer> next) {

    /**
     * A place where a symbol stands.
     *
     * @param kind of the declaration; empty for a use
     * @param container what it stands in, qualified
     * @param endLine where a declaration ends, from 1
     * @param signature what a declaration says of itself, on one line
     * @param column from 1, in UTF-16 units
     * @param certainty of a use; empty if only a name is asked for
     * @param around the declaration that a use stands in, if it stands in one
     */
    public record Symbol(
            String name,
            SymbolRole role,
            Optional<Kind> kind,
            String container,
            int branchNumber,
            int file,
            Line line,
            int column,
            int endLine,
            String signature,
            Optional<Certainty> certainty,
            Optional<Declared> around) {}
}
