package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.CommitGraph;
import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.LineBlock;
import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.history.Past;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.BranchFacts;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Truth;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.query.matching.TextMatcher;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Effort;
import dev.oddbeacon.core.search.PlannedPieces;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.SearchPool;
import dev.oddbeacon.core.segment.GramLists;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.text.Lines;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.IntPredicate;
import java.util.function.Predicate;
import java.util.stream.IntStream;

/**
 * Works out which commits of one repository a question holds for: the cheap parts first, each among those that are
 * left.
 */
final class CommitSets {
    /** Blocks that one slice looks at. */
    private static final int AT_ONCE = 8;

    private final SearchContext context;
    private final String repository;
    private final PastPath pastPath;
    private final Past past;
    private final CommitGraph graph;
    private final Mailmap mailmap;
    private final Budget budget;
    private final SearchPool pool;
    private final Effort effort = new Effort();
    // what is worked out once, though commits are asked about in several portions
    private final Map<CommitNode, List<BitSet>> paths = new IdentityHashMap<>();
    private final Map<TextMatcher, List<BitSet>> people = new IdentityHashMap<>();
    private final Map<TextMatcher, List<int[]>> messageBlocks = new IdentityHashMap<>();
    private final Map<TextMatcher, List<int[]>> lineBlocks = new IdentityHashMap<>();

    CommitSets(SearchContext context, String repository) {
        this.context = context;
        this.repository = repository;
        this.pastPath = new PastPath(context, repository);
        this.past = context.view().past(repository);
        this.graph = past.graph();
        this.mailmap = context.view().mailmap(repository);
        this.budget = context.budget();
        this.pool = context.pool();
    }

    /** The commits, among some, for which a query holds. What is given is not changed. */
    BitSet of(CommitNode node, BitSet among) {
        return switch (node) {
            case CommitNode.And and -> {
                BitSet left = among;
                for (CommitNode part : and.parts().stream()
                        .sorted(Comparator.comparingInt(CommitNode::cost))
                        .toList()) {
                    left = left.isEmpty() ? left : of(part, left);
                }
                yield left;
            }
            case CommitNode.Or or -> {
                BitSet found = new BitSet();
                BitSet left = (BitSet) among.clone();
                for (CommitNode part : or.parts()) {
                    BitSet more = of(part, left);
                    found.or(more);
                    left.andNot(more);
                }
                yield found;
            }
            case CommitNode.Not not -> {
                BitSet left = (BitSet) among.clone();
                left.andNot(of(not.part(), among));
                yield left;
            }
            case CommitNode.Everything _ -> among;
            case CommitNode.When dated ->
                where(among, commit -> graph.committedSeconds(commit) >= dated.seconds() == dated.after());
            case CommitNode.Touches touches ->
                touching(node, among, path -> touches.path().matches(path));
            case CommitNode.ChangesFile changes ->
                touching(node, among, path -> changes.condition().holds(pastPath.at(path)));
            case CommitNode.Belongs belongs -> belonging(belongs.condition(), among);
            case CommitNode.Holds holds ->
                past.touching(among, paths.computeIfAbsent(node, _ -> past.paths(holding(holds.part())::contains)));
            case CommitNode.Text text ->
                switch (text.place()) {
                    case PEOPLE -> by(text.matcher(), among);
                    case MESSAGE -> saying(text.matcher(), among);
                    case ANY -> {
                        BitSet found = by(text.matcher(), among);
                        BitSet left = (BitSet) among.clone();
                        left.andNot(found);
                        found.or(saying(text.matcher(), left));
                        yield found;
                    }
                    case ADDED, REMOVED -> changing(text.matcher(), text.place() == CommitNode.Place.ADDED, among);
                };
        };
    }

    private interface CommitPredicate {
        boolean test(int commit);
    }

    private static BitSet where(BitSet among, CommitPredicate predicate) {
        BitSet found = new BitSet();
        for (int commit = among.nextSetBit(0); commit >= 0; commit = among.nextSetBit(commit + 1)) {
            found.set(commit, predicate.test(commit));
        }
        return found;
    }

    /** Commits reached by the branches for which a condition holds; all of them if it holds for the repository. */
    private BitSet belonging(FileCondition condition, BitSet among) {
        List<Branch> branches = context.view().branches().stream()
                .filter(branch -> branch.repository().equals(repository))
                .toList();
        BitSet found = new BitSet();
        for (Branch branch : branches) {
            if (condition.of(new BranchFacts(repository, branch.labels(), Optional.of(branch.name()))) == Truth.YES) {
                found.or(
                        condition instanceof FileCondition.OnBranch
                                ? past.reachable(ObjectId.of(branch.commit()))
                                : among);
            }
        }
        found.and(among);
        return found;
    }

    /** Paths of files, as they are now, whose content holds for something. */
    private Set<String> holding(Query part) {
        CompiledQuery asked = CompiledQuery.of(
                Query.and(List.of(new FileCondition.Repository(Glob.escape(repository)), part)), CaseMode.AUTO);
        Set<String> paths = new HashSet<>();
        LineSearch.ofFiles(asked)
                .run(context)
                .page()
                .forEach(file ->
                        paths.add(context.view().snapshot(file.branchNumber()).path(file.file())));
        return paths;
    }

    private BitSet touching(CommitNode node, BitSet among, Predicate<String> wanted) {
        return past.touching(among, paths.computeIfAbsent(node, _ -> past.paths(wanted)));
    }

    /** For each file of the past, the people in it that match. */
    private List<BitSet> people(TextMatcher matcher) {
        TextMatcher.Finder finder = matcher.finder(() -> false);
        List<BitSet> found = new ArrayList<>();
        for (HistoryReader file : graph.files()) {
            BitSet matching = new BitSet();
            for (int person = 0; person < file.people().size(); person++) {
                Commit.Person written = file.people().get(person);
                Commit.Person proper = mailmap.proper(written);
                matching.set(
                        person,
                        matches(finder, proper.toString())
                                || !proper.equals(written) && matches(finder, written.toString()));
            }
            found.add(matching);
        }
        return found;
    }

    private BitSet by(TextMatcher matcher, BitSet among) {
        List<BitSet> matching = people.computeIfAbsent(matcher, this::people);
        BitSet found = new BitSet();
        for (int number = 0; number < graph.files().size(); number++) {
            HistoryReader file = graph.files().get(number);
            BitSet people = matching.get(number);
            int base = graph.base(number);
            for (int commit = among.nextSetBit(base);
                    commit >= 0 && commit < graph.base(number + 1);
                    commit = among.nextSetBit(commit + 1)) {
                found.set(commit, people.get(file.author(commit - base)) || people.get(file.committer(commit - base)));
            }
        }
        return found;
    }

    static boolean matches(TextMatcher.Finder finder, String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        finder.begin(MemorySegment.ofArray(utf8), 0, utf8.length, 0, utf8.length);
        return finder.next();
    }

    /** A range of blocks of a file. */
    private record Share(int file, int[] blocks) {}

    private static List<Share> shares(int file, int[] blocks) {
        List<Share> shares = new ArrayList<>();
        for (int at = 0; at < blocks.length; at += AT_ONCE) {
            shares.add(new Share(file, Arrays.copyOfRange(blocks, at, Math.min(blocks.length, at + AT_ONCE))));
        }
        return shares;
    }

    private static boolean hasAny(BitSet among, int from, int to) {
        int next = among.nextSetBit(from);
        return next >= 0 && next <= to;
    }

    private BitSet saying(TextMatcher matcher, BitSet among) {
        List<Share> shares = new ArrayList<>();
        for (int number = 0; number < graph.files().size(); number++) {
            HistoryReader file = graph.files().get(number);
            int base = graph.base(number);
            int[] blocks = messageBlocks
                    .computeIfAbsent(matcher, _ -> planned(matcher, HistoryReader::messageGrams))
                    .get(number);
            shares.addAll(shares(
                    number,
                    IntStream.of(blocks)
                            .filter(block -> hasAny(
                                    among,
                                    base + file.firstOfMessages(block),
                                    base + file.firstOfMessages(block + 1) - 1))
                            .toArray()));
        }
        return united(pool.map(budget, shares, share -> saying(share, matcher, among)));
    }

    private BitSet saying(Share share, TextMatcher matcher, BitSet among) {
        BitSet found = new BitSet();
        HistoryReader file = graph.files().get(share.file);
        TextMatcher.Finder finder = matcher.finder(budget::isOver);
        for (int block : share.blocks) {
            if (budget.isOver()) {
                return found;
            }
            byte[] all = file.messages(block);
            MemorySegment text = MemorySegment.ofArray(all);
            for (int commit = file.firstOfMessages(block); commit < file.firstOfMessages(block + 1); commit++) {
                if (among.get(graph.base(share.file) + commit)) {
                    int start = file.startInMessages(block, commit);
                    int end = file.startInMessages(block, commit + 1);
                    finder.begin(text, start, end, start, end);
                    found.set(graph.base(share.file) + commit, finder.next());
                }
            }
        }
        return found;
    }

    private BitSet changing(TextMatcher matcher, boolean added, BitSet among) {
        BitSet found = new BitSet();
        forEachMatchingRun(matcher, among, isAdded -> isAdded == added, true, (base, block, run, _) -> {
            synchronized (found) {
                found.set(base + block.commit(run));
            }
        });
        return found;
    }

    /** For each file of the past, the blocks that may match. */
    private List<int[]> planned(TextMatcher matcher, Function<HistoryReader, GramLists> lists) {
        return graph.files().stream()
                .map(file -> {
                    GramLists grams = lists.apply(file);
                    return new PlannedPieces(grams, Optional.empty(), effort, PlannedPieces.ITSELF)
                            .of(matcher.plan())
                            .orElseGet(
                                    () -> IntStream.range(0, grams.pieceCount()).toArray());
                })
                .toList();
    }

    /** Takes runs of lines of which some match. Called by several threads. */
    interface RunSink {
        /**
         * @param base the number of the first commit of the file
         * @param lines that match
         */
        void run(int base, LineBlock block, int run, int lines);
    }

    /**
     * Goes through the changed lines of some commits that match.
     *
     * @param signs which are wanted: of lines that came, or went
     * @param once whether it is enough to know of each run that there is one
     */
    void forEachMatchingRun(TextMatcher matcher, BitSet among, Predicate<Boolean> signs, boolean once, RunSink sink) {
        List<Share> shares = new ArrayList<>();
        for (int number = 0; number < graph.files().size(); number++) {
            HistoryReader file = graph.files().get(number);
            int base = graph.base(number);
            int[] blocks = lineBlocks
                    .computeIfAbsent(matcher, _ -> planned(matcher, HistoryReader::lineGrams))
                    .get(number);
            shares.addAll(shares(
                    number,
                    IntStream.of(blocks)
                            .filter(block ->
                                    hasAny(among, base + file.firstOfLines(block), base + file.lastOfLines(block)))
                            .toArray()));
        }
        pool.map(budget, shares, share -> {
            HistoryReader file = graph.files().get(share.file);
            int base = graph.base(share.file);
            TextMatcher.Finder finder = matcher.finder(budget::isOver);
            for (int number : share.blocks) {
                if (budget.isOver()) {
                    return false;
                }
                LineBlock block = file.lines(number);
                IntPredicate wanted = run -> among.get(base + block.commit(run)) && signs.test(block.isAdded(run));
                int[] lines = matcher.staysOnLine()
                        ? lines(finder, block, wanted, once)
                        : spannedLines(finder, block, wanted);
                for (int run = 0; run < lines.length; run++) {
                    if (lines[run] > 0) {
                        sink.run(base, block, run, lines[run]);
                    }
                }
            }
            return true;
        });
    }

    /** Counts the matching lines of each run. The text of a block is gone through once, whatever stands in which run. */
    private static int[] lines(TextMatcher.Finder finder, LineBlock block, IntPredicate wanted, boolean once) {
        int[] lines = new int[block.runs()];
        MemorySegment text = MemorySegment.ofArray(block.text());
        int end = block.end(block.runs() - 1);
        finder.begin(text, block.start(0), end, block.start(0), end);
        int run = 0;
        while (finder.next() && finder.start() < end) {
            int before = run;
            while (block.end(run) <= finder.start()) {
                run++;
            }
            boolean isWanted = (lines[run] > 0 && before == run) || wanted.test(run);
            lines[run] += isWanted ? 1 : 0;
            if (once || !isWanted) {
                finder.begin(text, block.end(run), end, block.end(run), end);
            } else {
                finder.skipLine();
            }
        }
        return lines;
    }

    /** A match that spans lines counts only if its lines follow each other in the file. */
    private static int[] spannedLines(TextMatcher.Finder finder, LineBlock block, IntPredicate wanted) {
        int[] lines = new int[block.runs()];
        MemorySegment text = MemorySegment.ofArray(block.text());
        for (int run = 0; run < block.runs(); run++) {
            int at = block.start(run);
            for (int hunk = 0; hunk < block.hunks(run) && wanted.test(run); hunk++) {
                int end = at;
                for (int line = 0; line < block.lines(run, hunk); line++) {
                    while (block.text()[end] != '\n') {
                        end++;
                    }
                    end++;
                }
                finder.begin(text, at, end, at, end);
                long counted = -1;
                while (finder.next()) {
                    long last = Math.max(finder.start(), finder.end() - 1);
                    for (int i = Lines.feeds(text, Math.max(finder.start(), counted + 1), last);
                            i >= 0 && last > counted;
                            i--) {
                        lines[run]++;
                    }
                    counted = Math.max(counted, Lines.end(text, last, end));
                }
                at = end;
            }
        }
        return lines;
    }

    private static BitSet united(List<BitSet> sets) {
        BitSet all = new BitSet();
        sets.forEach(all::or);
        return all;
    }
}
