package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery.Node;
import java.util.BitSet;
import java.util.List;
import java.util.function.Function;

/**
 * Finds the files that {@code holds( )} asks for, so that what remains of a query asks for no content but what it
 * shows. Each is a search for files by itself, within the conditions that stand around it.
 */
final class HeldFiles {
    private HeldFiles() {}

    /**
     * @param search finds the files of a query: for each branch by number, the numbers of its files
     * @return the query, with each {@link Node.Holds} replaced by the files it holds for
     */
    static CompiledQuery settle(CompiledQuery query, Function<CompiledQuery, List<BitSet>> search) {
        if (!query.asksForContent()) {
            return query;
        }
        CompiledQuery around = query.with(
                leaf -> leaf instanceof Node.Clause || leaf instanceof Node.Holds ? new Node.Everything(true) : leaf);
        return query.with(leaf -> {
            if (!(leaf instanceof Node.Holds holds)) {
                return leaf;
            }
            CompiledQuery within = new CompiledQuery(
                    new Node.And(List.of(around.root(), holds.part().root())),
                    holds.part().clauses(),
                    query.branches());
            return new Node.Found(search.apply(within), holds.wanted());
        });
    }
}
