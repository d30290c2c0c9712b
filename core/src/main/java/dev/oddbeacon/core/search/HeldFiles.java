package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.CompiledQuery.Node;
import dev.oddbeacon.core.search.LineSearch.Order;
import dev.oddbeacon.core.search.LineSearch.Show;
import dev.oddbeacon.core.snapshot.View;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Finds the files that {@code holds( )} asks for, so that what remains of a query asks for no content but what it shows.
 * Each is a search for files by itself, within the limits that stand around it.
 */
public final class HeldFiles {
    private HeldFiles() {}

    /** @return the query, with each {@link Node.Holds} replaced by the files it holds for */
    public static CompiledQuery settle(CompiledQuery query, View view, Limits.Exclusions exclusions, Budget budget, SearchPool pool) {
        if (!query.asksForContent()) {
            return query;
        }
        CompiledQuery around = query.with(leaf -> leaf instanceof Node.Clause || leaf instanceof Node.Holds ? new Node.Everything(true) : leaf);
        return query.with(leaf -> {
            if (!(leaf instanceof Node.Holds holds)) {
                return leaf;
            }
            CompiledQuery within = new CompiledQuery(new Node.And(List.of(around.root(), holds.part().root())), holds.part().clauses(), query.branches());
            List<BitSet> files = IntStream.range(0, view.branches().size()).mapToObj(_ -> new BitSet()).toList();
            new LineSearch(within, Integer.MAX_VALUE, 0, LineAnswer.Position.START, true, Order.PATH, Show.FILES, exclusions, budget).run(view, pool).page()
                    .forEach(file -> files.get(file.rank()).set(file.file()));
            return new Node.Found(files, holds.wanted());
        });
    }
}
