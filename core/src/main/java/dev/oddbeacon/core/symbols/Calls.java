package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.lines.Excerpts;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.UsedNames;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.symbols.Navigation.Reason;
import dev.oddbeacon.core.symbols.Navigation.Target;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Who calls a declaration, or uses it, and what it calls itself: one level, of which each end can be asked in turn.
 *
 * @param ends the surest first; of what is called, in the order of the calls
 * @param byName places that only the name speaks for, which are in none of them
 * @param exact whether all places were looked at
 */
public record Calls(List<End> ends, long byName, boolean exact) {
    private static final int MOST_USES = 1_000;
    private static final int MOST_ENDS = 300;

    /**
     * A place where something is called.
     *
     * @param line from 1
     * @param column from 1, in UTF-16 units
     * @param text of the line, without blanks around it
     */
    public record Site(int line, int column, String text, Certainty certainty) {}

    /**
     * The other end of calls.
     *
     * @param declaration empty if the calls stand in none: the file itself makes them
     * @param sites where the calls are made
     */
    public record End(Optional<Target> declaration, int branchNumber, int file, List<Site> sites) {
        public Certainty surest() {
            return sites.stream()
                    .map(Site::certainty)
                    .min(Comparator.naturalOrder())
                    .orElse(Certainty.BY_NAME);
        }
    }

    /**
     * By what calls or uses some declarations, all of one name. Who calls what they override, may call them.
     *
     * @param overridden methods that they override
     */
    public static Calls of(SearchContext context, Scope scope, List<Spot> declarations, List<Spot> overridden) {
        Map<List<Integer>, End> ends = new LinkedHashMap<>();
        SymbolAnswer answer = uses(context, scope, declarations);
        addCallers(context.view(), answer, Certainty.SURE, ends);
        boolean isExact = isWhole(answer);
        if (!overridden.isEmpty()) {
            SymbolAnswer above = uses(context, scope, overridden);
            addCallers(context.view(), above, Certainty.LIKELY, ends);
            isExact &= isWhole(above);
        }
        long byName = answer.certainties().stream()
                .filter(share -> share.value().equals(Certainty.BY_NAME.label()))
                .mapToLong(Share::hits)
                .sum();
        List<End> sorted = ends.values().stream()
                .sorted(Comparator.comparing(End::surest))
                .limit(MOST_ENDS)
                .toList();
        return new Calls(sorted, byName, isExact && ends.size() <= MOST_ENDS);
    }

    private static boolean isWhole(SymbolAnswer answer) {
        return answer.exact() && answer.next().isEmpty();
    }

    private static SymbolAnswer uses(SearchContext context, Scope scope, List<Spot> declarations) {
        return new SymbolSearch(
                        SymbolQuery.usesOf(declarations, scope),
                        SymbolRole.USE,
                        Set.of(),
                        EnumSet.of(Certainty.SURE, Certainty.LIKELY),
                        0,
                        MOST_USES,
                        true)
                .run(context);
    }

    /** @param best how surely they call it at best */
    private static void addCallers(View view, SymbolAnswer answer, Certainty best, Map<List<Integer>, End> into) {
        for (SymbolAnswer.Symbol use : answer.page()) {
            Optional<Spot> around = use.around()
                    .filter(one -> one.kind() != Kind.NAMESPACE && !one.kind().isUse())
                    .flatMap(one -> view.location(use.branchNumber(), use.file())
                            .map(location -> new Spot(
                                    location.segment(), location.blob(), one, use.branchNumber(), use.file())));
            String text = use.line().text().strip();
            if (around.isEmpty() && isImport(text)) {
                continue;
            }
            List<Integer> key = List.of(
                    use.branchNumber(),
                    use.file(),
                    around.map(spot -> spot.declared().number()).orElse(-1));
            End end = into.computeIfAbsent(
                    key,
                    _ -> new End(
                            around.map(spot -> Navigation.target(spot, Reason.ITSELF)),
                            use.branchNumber(),
                            use.file(),
                            new ArrayList<>()));
            Certainty certainty = use.certainty().orElse(Certainty.BY_NAME);
            Site site =
                    new Site(use.line().number(), use.column(), text, certainty.compareTo(best) < 0 ? best : certainty);
            boolean isThere =
                    end.sites().stream().anyMatch(one -> one.line() == site.line() && one.column() == site.column());
            if (!isThere) {
                end.sites().add(site);
            }
        }
    }

    private static boolean isImport(String line) {
        return line.startsWith("import ")
                || line.startsWith("from ")
                || line.startsWith("use ")
                || line.startsWith("using ")
                || line.startsWith("export {");
    }

    /** By what a declaration calls. */
    public static Calls madeBy(View view, Spot caller) {
        SegmentReader segment = caller.segment();
        int blob = caller.blob();
        Map<List<Integer>, End> ends = new LinkedHashMap<>();
        long byName = 0;
        Excerpts excerpts = new Excerpts(segment, blob, 0, false);
        for (UsedNames.Called called : new UsedNames(view, caller.branchNumber(), caller.file())
                .called(caller.declared().nameEnd(), caller.declared().end())) {
            byName += called.declarations().isEmpty() ? 1 : 0;
            long lineStart = Lines.start(segment.content(), called.offset(), segment.start(blob));
            Site site = new Site(
                    segment.lineNumber(blob, called.offset()),
                    Utf8.string(segment.content(), lineStart, called.offset()).length() + 1,
                    excerpts.lineOf(called.offset(), called.offset() + 1).text().strip(),
                    called.certainty());
            for (Spot spot : called.declarations()) {
                Reason reason = called.certainty() == Certainty.SURE ? Reason.TOLD : Reason.SPOKEN_FOR;
                ends.computeIfAbsent(
                                List.of(
                                        spot.branchNumber(),
                                        spot.file(),
                                        spot.declared().number()),
                                _ -> new End(
                                        Optional.of(Navigation.target(spot, reason)),
                                        spot.branchNumber(),
                                        spot.file(),
                                        new ArrayList<>()))
                        .sites()
                        .add(site);
            }
        }
        return new Calls(ends.values().stream().limit(MOST_ENDS).toList(), byName, ends.size() <= MOST_ENDS);
    }
}
