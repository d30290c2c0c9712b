package dev.oddbeacon.core.search;

import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Facets.Spread;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.PriorityQueue;
import java.util.function.Function;

/**
 * Files and hits as they were added up, for some repositories or all: counts of parts that have no repository in common
 * make those of the whole, and from these come {@link Facets}.
 *
 * @param repositories how many there are
 * @param repository all of them, as types and traits are; or those with the most hits, see {@link #trimmed}
 * @param shared the deepest folder that all files share, without a slash at either end; empty for the root
 * @param folder all of the folders below it in which there are files, as {@code under} takes them
 * @param sum of all
 * @param spread where most hits are
 */
public record FacetCounts(
        int repositories,
        List<Share> repository,
        List<Share> type,
        List<Share> trait,
        String shared,
        List<Share> folder,
        Share sum,
        List<Spread> spread) {
    static final int MOST = 50;
    static final int MOST_SPREAD = 40;

    static final Comparator<Share> MOST_HITS = Comparator.comparingLong(Share::hits)
            .thenComparingInt(Share::files)
            .reversed()
            .thenComparing(Share::value);
    static final Comparator<Spread> MOST_HITS_THERE = Comparator.comparingLong(Spread::hits)
            .thenComparingInt(Spread::files)
            .reversed()
            .thenComparing(Spread::repository)
            .thenComparing(Spread::folder);

    /** Of nothing. */
    public static final FacetCounts NONE =
            new FacetCounts(0, List.of(), List.of(), List.of(), "", List.of(), new Share("", 0, 0), List.of());

    /** The counts of several parts together. @param parts that have no repository in common */
    public static FacetCounts merged(List<FacetCounts> parts) {
        List<FacetCounts> found =
                parts.stream().filter(part -> part.repositories > 0).toList();
        if (found.size() <= 1) {
            return found.isEmpty() ? NONE : found.getFirst();
        }
        String shared = found.stream()
                .map(FacetCounts::shared)
                .reduce(FacetCounts::sharedFolder)
                .orElse("");
        return new FacetCounts(
                found.stream().mapToInt(FacetCounts::repositories).sum(),
                first(MOST, MOST_HITS, all(found, FacetCounts::repository)),
                added(found, FacetCounts::type),
                added(found, FacetCounts::trait),
                shared,
                added(found, part -> part.foldersBelow(shared)),
                added(found, part -> List.of(part.sum)).getFirst(),
                first(MOST_SPREAD, MOST_HITS_THERE, all(found, FacetCounts::spread)));
    }

    private static <T> List<T> all(List<FacetCounts> parts, Function<FacetCounts, List<T>> of) {
        return parts.stream().flatMap(part -> of.apply(part).stream()).toList();
    }

    private static List<Share> added(List<Share> shares) {
        Map<String, long[]> counts = new HashMap<>();
        shares.forEach(share -> add(counts, share.value(), share.files(), share.hits()));
        return shares(counts);
    }

    /** The sums of counts of several parts, in no order. */
    public static <P> List<Share> added(List<P> parts, Function<P, List<Share>> of) {
        return added(parts.stream().flatMap(part -> of.apply(part).stream()).toList());
    }

    /** @param above which all of these files share, as deep as what they share or less */
    private List<Share> foldersBelow(String above) {
        if (above.length() == shared.length()) {
            return folder;
        }
        return List.of(new Share(folderBelow(above, shared), sum.files(), sum.hits()));
    }

    /** The facets of what was counted. */
    public Facets facets() {
        return new Facets(
                first(MOST, MOST_HITS, repository),
                first(MOST, MOST_HITS, type),
                first(MOST, MOST_HITS, trait),
                first(MOST, MOST_HITS, folder),
                spread);
    }

    /** The same with only as many repositories as there are in {@link Facets}: enough to be added to others. */
    public FacetCounts trimmed() {
        return new FacetCounts(
                repositories, first(MOST, MOST_HITS, repository), type, trait, shared, folder, sum, spread);
    }

    static void add(Map<String, long[]> counts, String value, long files, long hits) {
        long[] count = counts.computeIfAbsent(value, _ -> new long[2]);
        count[0] += files;
        count[1] += hits;
    }

    static List<Share> shares(Map<String, long[]> counts) {
        List<Share> shares = new ArrayList<>(counts.size());
        counts.forEach((value, count) -> shares.add(new Share(value, (int) count[0], count[1])));
        return shares;
    }

    /** The first few of many, in order, without putting all in order. */
    static <T> List<T> first(int most, Comparator<T> order, Iterable<T> many) {
        First<T> first = new First<>(most, order);
        many.forEach(first::add);
        return first.inOrder();
    }

    /** Collects the first few of many. */
    static final class First<T> {
        private final int most;
        private final Comparator<T> order;
        private final PriorityQueue<T> kept; // the last of them first

        First(int most, Comparator<T> order) {
            this.most = most;
            this.order = order;
            this.kept = new PriorityQueue<>(order.reversed());
        }

        void add(T one) {
            if (kept.size() < most) {
                kept.add(one);
            } else if (order.compare(one, kept.peek()) < 0) {
                kept.poll();
                kept.add(one);
            }
        }

        boolean isFull() {
            return kept.size() == most;
        }

        T last() {
            return kept.peek();
        }

        List<T> inOrder() {
            return kept.stream().sorted(order).toList();
        }
    }

    /** The first folder below another on the way to a deeper one, as {@code under} takes it. */
    static String folderBelow(String above, String deeper) {
        int end = deeper.indexOf('/', above.isEmpty() ? 0 : above.length() + 1);
        return "/" + (end < 0 ? deeper : deeper.substring(0, end));
    }

    static String sharedFolder(String a, String b) {
        int slash = 0;
        int i = 0;
        while (i < a.length() && i < b.length() && a.charAt(i) == b.charAt(i)) {
            if (a.charAt(i) == '/') {
                slash = i;
            }
            i++;
        }
        boolean aEnds = i == a.length() && (i == b.length() || b.charAt(i) == '/');
        boolean bEnds = i == b.length() && i < a.length() && a.charAt(i) == '/';
        return aEnds || bEnds ? a.substring(0, i) : a.substring(0, slash);
    }
}
