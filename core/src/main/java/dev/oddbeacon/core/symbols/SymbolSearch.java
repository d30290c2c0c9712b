package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.lines.Excerpts;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.meaning.UseJudge;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Limits;
import dev.oddbeacon.core.search.BlobParts;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Dividable;
import dev.oddbeacon.core.search.Effort;
import dev.oddbeacon.core.search.FacetCounter;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.PlannedPieces;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.SearchPool;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.SegmentNames;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.NamedFile;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.symbols.SymbolAnswer.Symbol;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Searches symbols. The index knows the names in code and the pieces that hold each, with how often it is used there
 * and what is declared; so counts need no look at a text, and only the page does.
 *
 * @param role which places are meant
 * @param kinds which declarations are meant; empty for all
 * @param certainties how surely a use must mean one of the declarations that are asked for, where these are asked for
 * more closely than by their name; empty for sure and likely
 * @param from how many places are passed over
 * @param limit most places on the page
 * @param exact whether to count to the end; else counting stops soon for names of which there are very many
 */
public record SymbolSearch(
        SymbolQuery query,
        SymbolRole role,
        Set<Kind> kinds,
        Set<Certainty> certainties,
        int from,
        int limit,
        boolean exact)
        implements Dividable<SymbolAnswer, SymbolsFound> {
    private static final Set<Certainty> MEANT = EnumSet.of(Certainty.SURE, Certainty.LIKELY);
    private static final Duration COUNTING = Duration.ofMillis(15);
    /** Up to this many places in a segment are always counted, however long it takes. */
    private static final int MANY = 2_000;

    private static final int MOST_SORTED = 400_000;
    private static final int KINDS =
            Arrays.stream(Kind.values()).mapToInt(Kind::code).max().orElseThrow() + 1;
    private static final int TEST_POINTS = 6;
    private static final int FOREIGN_POINTS = 15;

    @Override
    public SymbolAnswer run(SearchContext context) {
        Run run = new Run(context);
        Found found = run.find(false);
        if (isFew(found.told)) {
            found = run.find(true);
        }
        return run.answer(found);
    }

    /** What a use means, other repositories may say. */
    @Override
    public boolean canBeDivided() {
        boolean judges =
                !query.declarations().isEmpty() || query.symbol().stream().anyMatch(SymbolName::asksMore);
        return query.limits().isOfEachRepository()
                && (role == SymbolRole.DECLARATION || !judges)
                && (long) from + limit <= MOST_TOLD;
    }

    @Override
    public boolean asksOfPasts() {
        return query.limits().asksOfPasts();
    }

    @Override
    public Optional<Stop> stopped(SymbolAnswer answer) {
        return answer.stopped();
    }

    @Override
    public boolean isIn(SymbolsFound part, View view) {
        return part.isIn(view);
    }

    @Override
    public SymbolsFound find(SearchContext context) {
        Run run = new Run(context);
        Found close = run.find(false);
        return new SymbolsFound(run.told(close), isFew(close.told) ? run.told(run.find(true)) : SymbolsFound.Told.NONE);
    }

    @Override
    public SymbolAnswer answer(List<SymbolsFound> parts, SearchContext context) {
        SymbolsFound.Told told =
                SymbolsFound.merged(parts.stream().map(SymbolsFound::close).toList());
        if (isFew(told)) {
            told = SymbolsFound.merged(parts.stream().map(SymbolsFound::loose).toList());
        }
        Run run = new Run(context);
        return run.answer(run.taken(told));
    }

    private boolean isFew(SymbolsFound.Told told) {
        return query.names().hasLooseJudge() && told.symbols() < query.names().few();
    }

    /** @param entries that may stand on the page, in no order */
    private record Found(SymbolsFound.Told told, List<Entry> entries) {}

    /** A name in a piece of a file. */
    private record Entry(
            int points,
            boolean declares,
            long place,
            int segment,
            int piece,
            String name,
            int symbols,
            List<String> missing,
            Optional<Certainty> certainty) {
        private static final Comparator<Entry> FIRST_FIRST = Comparator.comparing(Entry::declares)
                .reversed()
                .thenComparingInt(Entry::order)
                .thenComparing(Comparator.comparingInt(Entry::points).reversed())
                .thenComparingLong(Entry::place)
                .thenComparingInt(Entry::piece)
                .thenComparing(Entry::name);

        Entry of(Certainty one, int uses) {
            return new Entry(points, declares, place, segment, piece, name, uses, missing, Optional.of(one));
        }

        /** Uses that are surer come first. */
        int order() {
            return certainty.map(Certainty::code).orElse(0);
        }
    }

    private final class Run {
        private final View view;
        private final SearchPool pool;
        private final Budget budget;
        private final SearchContext context;
        private Limits limits;
        private int[][] hits; // by branch number and file
        private final BlobParts parts;
        private final Set<Certainty> wanted = certainties.isEmpty() ? MEANT : certainties;
        private final Optional<UseJudge> judge;
        private boolean hasAllFiles;

        Run(SearchContext context) {
            this.context = context;
            this.view = context.view();
            this.pool = context.pool();
            this.budget = context.budget();
            this.parts = new BlobParts(view);
            this.judge = query.judge(view);
        }

        /** Works out in which files it looks, and notes what is found there. */
        private void begin() {
            if (limits == null) {
                LineSearch.Settled settled = LineSearch.settle(query.compiledLimits(), context);
                hasAllFiles = settled.isWhole();
                limits = context.limits(settled.query());
            }
            hits = new int[view.branches().size()][];
            for (int branchNumber = 0; branchNumber < hits.length; branchNumber++) {
                hits[branchNumber] = limits.holdsBranch(branchNumber)
                        ? new int[view.snapshot(branchNumber).count()]
                        : new int[0];
            }
        }

        Found find(boolean loosely) {
            begin();
            long[] byKind = new long[KINDS];
            long declarations = 0;
            long uses = 0;
            long[] byCertainty = new long[Certainty.values().length];
            boolean all = hasAllFiles;
            List<Entry> entries = new ArrayList<>();
            for (InSegment one : search(loosely)) {
                declarations += one.declarations;
                uses += one.uses;
                Arrays.setAll(byCertainty, i -> byCertainty[i] + one.byCertainty[i]);
                for (int i = 0; i < byKind.length; i++) {
                    byKind[i] += one.byKind[i];
                }
                entries.addAll(one.entries);
                all &= one.whole;
            }
            FacetCounter facets = new FacetCounter(view, false);
            int files = 0;
            for (int branchNumber = 0; branchNumber < hits.length; branchNumber++) {
                for (int file = 0; file < hits[branchNumber].length; file++) {
                    if (hits[branchNumber][file] > 0) {
                        facets.add((long) branchNumber << 32 | file, hits[branchNumber][file]);
                        files++;
                    }
                }
            }
            Optional<Stop> stopped = budget.stop();
            return new Found(
                    new SymbolsFound.Told(
                            declarations,
                            uses,
                            files,
                            all && stopped.isEmpty(),
                            stopped,
                            facets.counts(),
                            IntStream.range(0, byKind.length)
                                    .filter(i -> byKind[i] > 0)
                                    .mapToObj(i -> new Share(Kind.of(i).label(), 0, byKind[i]))
                                    .toList(),
                            Arrays.stream(Certainty.values())
                                    .filter(one -> byCertainty[one.code()] > 0)
                                    .map(one -> new Share(one.label(), 0, byCertainty[one.code()]))
                                    .toList(),
                            List.of()),
                    entries);
        }

        /** What was found, to be put together with what others found. */
        SymbolsFound.Told told(Found found) {
            SymbolsFound.Told told = found.told;
            List<SymbolsFound.At> first = new ArrayList<>();
            long passed = 0;
            found.entries.sort(Entry.FIRST_FIRST);
            for (Entry entry : found.entries) {
                if (passed >= (long) from + limit) {
                    break;
                }
                passed += entry.symbols;
                first.add(at(entry));
            }
            return new SymbolsFound.Told(
                    told.declarations(),
                    told.uses(),
                    told.files(),
                    told.exact(),
                    told.stopped(),
                    told.facets().trimmed(),
                    told.kinds(),
                    told.certainties(),
                    first);
        }

        private SymbolsFound.At at(Entry entry) {
            SegmentReader segment = view.segments().get(entry.segment);
            return new SymbolsFound.At(
                    NamedFile.of(view, entry.place),
                    entry.piece - segment.firstPiece(segment.blobOf(entry.piece)),
                    entry.name,
                    entry.points,
                    entry.declares,
                    entry.symbols,
                    entry.missing);
        }

        Found taken(SymbolsFound.Told told) {
            List<Entry> entries = new ArrayList<>();
            for (SymbolsFound.At at : told.first()) {
                long place = at.place(view).orElseThrow();
                int branchNumber = (int) (place >>> 32);
                View.Location text = view.location(branchNumber, (int) place).orElseThrow();
                entries.add(new Entry(
                        at.points(),
                        at.declares(),
                        place,
                        view.segmentNumber(branchNumber, (int) place),
                        text.segment().firstPiece(text.blob()) + at.piece(),
                        at.name(),
                        at.symbols(),
                        at.missing(),
                        Optional.empty()));
            }
            return new Found(told, entries);
        }

        SymbolAnswer answer(Found found) {
            SymbolsFound.Told told = found.told;
            List<Share> roles = new ArrayList<>();
            if (told.declarations() > 0) {
                roles.add(new Share("declaration", 0, told.declarations()));
            }
            if (told.uses() > 0) {
                roles.add(new Share("use", 0, told.uses()));
            }
            List<Symbol> page = page(found.entries);
            boolean more = (long) from + page.size() < told.symbols() && page.size() == limit;
            Optional<Stop> stopped = told.stopped().or(budget::stop);
            return new SymbolAnswer(
                    told.symbols(),
                    told.files(),
                    told.facets().repositories(),
                    told.exact() && stopped.isEmpty(),
                    stopped,
                    told.facets().facets(),
                    told.byKind(),
                    List.copyOf(roles),
                    told.certainties(),
                    page,
                    more ? Optional.of(from + limit) : Optional.empty());
        }

        private List<InSegment> search(boolean loosely) {
            List<Integer> numbers =
                    IntStream.range(0, view.segments().size()).boxed().toList();
            return pool.map(budget, numbers, number -> new InSegment(number, loosely).run());
        }

        /** The matches of one segment; segments may be searched at the same time, as no file is in two. */
        private final class InSegment {
            private final int number;
            private final SegmentReader segment;
            private final boolean loosely;
            private final NameMatcher.Judge judge;
            private final Limits.Files scoped = limits.files();
            private final List<Entry> entries = new ArrayList<>();
            private final long[] byKind = new long[KINDS];
            private final long[] byCertainty = new long[Certainty.values().length];
            private Optional<UseJudge> ofUses = query.judge(view);
            private final BlobParts partsHere = new BlobParts(view);
            private long declarations;
            private long uses;
            private boolean whole = true;

            InSegment(int number, boolean loosely) {
                this.number = number;
                this.segment = view.segments().get(number);
                this.loosely = loosely;
                this.judge =
                        loosely ? query.names().looseJudge() : query.names().judge();
            }

            long symbols() {
                return declarations + uses;
            }

            InSegment run() {
                if (view.isUsed(segment) && segment.names().blockCount() > 0) {
                    SegmentNames names = segment.names();
                    for (int block : blocks(names)) {
                        if (budget.isOver()
                                || !exact
                                        && symbols() > MANY
                                        && budget.elapsed().compareTo(COUNTING) > 0) {
                            whole = false;
                            break;
                        }
                        block(names, block);
                    }
                }
                ofUses = Optional.empty(); // what it has read is large
                return this;
            }

            /**
             * The blocks that may hold names that are meant; those that may hold them from their beginning come first.
             */
            private int[] blocks(SegmentNames names) {
                if (loosely) {
                    IntStream more = query.names().looseBeginnings().stream()
                            .flatMapToInt(beginning -> Arrays.stream(
                                    names.blocksBeginningWith(beginning.getBytes(StandardCharsets.UTF_8))));
                    return IntStream.concat(Arrays.stream(literalBlocks(names)), more)
                            .sorted()
                            .distinct()
                            .toArray();
                }
                return literalBlocks(names);
            }

            private int[] literalBlocks(SegmentNames names) {
                if (query.symbol().isPresent() && !query.names().beginning().isEmpty()) {
                    return names.blocksBeginningWith(query.names().beginning().getBytes(StandardCharsets.UTF_8));
                }
                Optional<int[]> planned = new PlannedPieces(
                                names.grams(), Optional.of(segment.words()), new Effort(), PlannedPieces.ITSELF)
                        .of(query.names().plan());
                if (planned.isPresent()) {
                    return planned.get();
                }
                int[] first =
                        names.blocksBeginningWith(query.names().beginning().getBytes(StandardCharsets.UTF_8));
                return IntStream.concat(
                                Arrays.stream(first),
                                IntStream.range(0, names.blockCount())
                                        .filter(block -> Arrays.binarySearch(first, block) < 0))
                        .toArray();
            }

            private void block(SegmentNames names, int block) {
                byte[] text = names.unpacked(block);
                SegmentNames.BlockLists lists = null;
                int name = 0;
                for (int start = 0; start < text.length; name++) {
                    int end = start;
                    while (text[end] != '\n') {
                        end++;
                    }
                    int points = judge.points(text, start, end);
                    if (points != NameMatcher.NOT_MEANT) {
                        lists = lists == null ? names.lists(block) : lists;
                        String called = new String(text, start, end - start, StandardCharsets.UTF_8);
                        List<String> missing = List.copyOf(judge.missing());
                        lists.of(
                                name,
                                (piece, used, kindsHere, from, to) ->
                                        piece(points, called, missing, piece, used, kindsHere, from, to));
                    }
                    start = end + 1;
                }
            }

            private void piece(
                    int points,
                    String name,
                    List<String> missing,
                    int piece,
                    int used,
                    byte[] kindsHere,
                    int from,
                    int to) {
                int blob = segment.blobOf(piece);
                if (view.placeCount(segment, blob) == 0) {
                    return;
                }
                int declared = 0;
                long[] ofKind = new long[0];
                int weight = 0;
                if (role != SymbolRole.USE) {
                    boolean asksMore = !missing.isEmpty()
                            || query.symbol().isPresent()
                                    && query.symbol().get().asksMore();
                    if (asksMore && to > from) {
                        ofKind = new long[byKind.length];
                        for (Declared one : declarations(piece, name, missing)) {
                            declared++;
                            ofKind[one.kind().code()]++;
                            weight = Math.max(weight, weight(one.kind()));
                        }
                    } else if (!asksMore) {
                        for (int i = from; i < to; i++) {
                            Kind kind = Kind.of(kindsHere[i]);
                            if (!kind.isUse() && (kinds.isEmpty() || kinds.contains(kind))) {
                                declared++;
                                weight = Math.max(weight, weight(kind));
                            }
                        }
                    }
                }
                int usedHere = role == SymbolRole.DECLARATION || !missing.isEmpty() || !kinds.isEmpty() ? 0 : used;
                if (declared == 0 && usedHere == 0) {
                    return;
                }
                long[] offsets =
                        usedHere > 0 && ofUses.isPresent() ? uses(segment, piece, name, partsHere) : new long[0];
                int counted = declared;
                int weighs = weight;
                long[] kindCounts = ofKind;
                view.forEachPlace(segment, blob, (branchNumber, file) -> {
                    if (hits[branchNumber].length == 0 || !scoped.hold(branchNumber, file)) {
                        return;
                    }
                    int[] meant = new int[Certainty.values().length];
                    for (long offset : offsets) {
                        if (budget.isOver()) {
                            whole = false;
                            break;
                        }
                        meant[
                                ofUses.orElseThrow()
                                        .of(name, branchNumber, file, offset)
                                        .code()]++;
                    }
                    int usedThere = ofUses.isEmpty()
                            ? usedHere
                            : wanted.stream().mapToInt(one -> meant[one.code()]).sum();
                    Arrays.setAll(byCertainty, i -> byCertainty[i] + meant[i]);
                    if (counted + usedThere == 0) {
                        return;
                    }
                    hits[branchNumber][file] += counted + usedThere;
                    declarations += counted;
                    uses += usedThere;
                    if (kindCounts.length > 0) {
                        for (int i = 0; i < kindCounts.length; i++) {
                            byKind[i] += kindCounts[i];
                        }
                    } else if (counted > 0) {
                        for (int i = from; i < to; i++) {
                            Kind kind = Kind.of(kindsHere[i]);
                            byKind[kindsHere[i]] += !kind.isUse() && (kinds.isEmpty() || kinds.contains(kind)) ? 1 : 0;
                        }
                    }
                    if (entries.size()
                            < MOST_SORTED / Math.max(1, view.segments().size()) + limit) {
                        int traits = view.snapshot(branchNumber).traits(file);
                        int lost = ((traits & Traits.TESTS) != 0 ? TEST_POINTS : 0)
                                + ((traits & Traits.FOREIGN) != 0 ? FOREIGN_POINTS : 0);
                        long place = (long) branchNumber << 32 | file;
                        if (counted > 0) {
                            entries.add(new Entry(
                                    points * 4 + weighs - lost,
                                    true,
                                    place,
                                    number,
                                    piece,
                                    name,
                                    counted,
                                    missing,
                                    Optional.empty()));
                        }
                        Entry ofUse = new Entry(
                                points * 4 - lost,
                                false,
                                place,
                                number,
                                piece,
                                name,
                                usedThere,
                                missing,
                                Optional.empty());
                        if (ofUses.isEmpty() && usedThere > 0) {
                            entries.add(ofUse);
                        }
                        for (Certainty one : wanted) {
                            if (meant[one.code()] > 0) {
                                entries.add(ofUse.of(one, meant[one.code()]));
                            }
                        }
                    }
                });
            }

            private List<Declared> declarations(int piece, String name, List<String> missing) {
                return Run.this.declarations(segment, piece, name, missing);
            }
        }

        /** The declarations of a name in a piece that are meant. */
        private List<Declared> declarations(SegmentReader segment, int piece, String name, List<String> missing) {
            int blob = segment.blobOf(piece);
            byte[] utf8 = name.getBytes(StandardCharsets.UTF_8);
            List<Declared> result = new ArrayList<>();
            for (Declared one : segment.declarations(piece)) {
                if (one.kind().isUse()
                        || one.nameEnd() - one.nameStart() != utf8.length
                        || !kinds.isEmpty() && !kinds.contains(one.kind())
                        || segment.content()
                                        .asSlice(one.nameStart(), utf8.length)
                                        .mismatch(MemorySegment.ofArray(utf8))
                                >= 0) {
                    continue;
                }
                boolean asksMore =
                        query.symbol().isPresent() && query.symbol().get().asksMore();
                if (!missing.isEmpty() || asksMore) {
                    String container = segment.container(blob, one);
                    String folded = container.toLowerCase(Locale.ROOT);
                    if (!missing.stream().allMatch(folded::contains)
                            || asksMore && !query.symbol().get().takes(one.kind(), container)) {
                        continue;
                    }
                }
                result.add(one);
            }
            return result;
        }

        private static int weight(Kind kind) {
            return switch (kind) {
                case CLASS, INTERFACE, TRAIT, STRUCT, UNION, ENUM, RECORD, OBJECT, TYPE, TABLE -> 40;
                case FUNCTION, METHOD, CONSTRUCTOR, MACRO, VIEW, TARGET -> 36;
                case NAMESPACE, CONSTANT, VARIABLE, STAGE, INDEX, HEADING -> 30;
                case FIELD, KEY, SELECTOR, ID -> 24;
                case PROTOTYPE -> 12;
                case SUPERTYPE, EXTENSION -> 0;
            };
        }

        private List<Symbol> page(List<Entry> entries) {
            entries.sort(Entry.FIRST_FIRST);
            List<Symbol> page = new ArrayList<>();
            int passed = 0;
            for (Entry entry : entries) {
                if (page.size() == limit) {
                    break;
                }
                if (passed + entry.symbols <= from) {
                    passed += entry.symbols;
                    continue;
                }
                List<Symbol> here = entry.declares ? declared(entry) : used(entry);
                for (int i = Math.max(0, from - passed); i < here.size() && page.size() < limit; i++) {
                    page.add(here.get(i));
                }
                passed += entry.symbols;
            }
            return page;
        }

        private List<Symbol> declared(Entry entry) {
            SegmentReader segment = view.segments().get(entry.segment);
            int blob = segment.blobOf(entry.piece);
            Excerpts excerpts = new Excerpts(segment, blob, 0, false);
            return declarations(segment, entry.piece, entry.name, entry.missing).stream()
                    .map(one -> new Symbol(
                            entry.name,
                            SymbolRole.DECLARATION,
                            Optional.of(one.kind()),
                            segment.container(blob, one),
                            (int) (entry.place >>> 32),
                            (int) entry.place,
                            excerpts.lineOf(one.nameStart(), one.nameEnd()),
                            column(segment, blob, one.nameStart()),
                            segment.lineNumber(blob, Math.max(one.nameStart(), one.end() - 1)),
                            Signature.of(segment, blob, one),
                            Optional.empty(),
                            Optional.empty()))
                    .toList();
        }

        private List<Symbol> used(Entry entry) {
            SegmentReader segment = view.segments().get(entry.segment);
            int blob = segment.blobOf(entry.piece);
            Excerpts excerpts = new Excerpts(segment, blob, 0, false);
            List<Symbol> result = new ArrayList<>();
            int branchNumber = (int) (entry.place >>> 32);
            int file = (int) entry.place;
            for (long start : uses(segment, entry.piece, entry.name, parts)) {
                if (entry.certainty.isPresent()
                        && judge.orElseThrow().of(entry.name, branchNumber, file, start) != entry.certainty.get()) {
                    continue;
                }
                Optional<Declared> around = segment.enclosing(blob, start);
                String container =
                        around.map(one -> qualified(segment, blob, one)).orElse("");
                long end = start + entry.name.getBytes(StandardCharsets.UTF_8).length;
                result.add(new Symbol(
                        entry.name,
                        SymbolRole.USE,
                        Optional.empty(),
                        container,
                        branchNumber,
                        file,
                        excerpts.lineOf(start, end),
                        column(segment, blob, start),
                        0,
                        "",
                        entry.certainty,
                        around));
            }
            return result;
        }

        /** Offsets of the uses of a name in a piece. */
        private static long[] uses(SegmentReader segment, int piece, String name, BlobParts parts) {
            parts.begin(segment, segment.blobOf(piece), 0, 0); // that is known without the place
            return Uses.of(segment, piece, name, parts);
        }

        private static String qualified(SegmentReader segment, int blob, Declared around) {
            String container = segment.container(blob, around);
            return container.isEmpty()
                    ? segment.name(around)
                    : container + segment.separator(blob, around) + segment.name(around);
        }

        private static int column(SegmentReader segment, int blob, long offset) {
            return Utf8.string(segment.content(), Lines.start(segment.content(), offset, segment.start(blob)), offset)
                            .length()
                    + 1;
        }
    }
}
