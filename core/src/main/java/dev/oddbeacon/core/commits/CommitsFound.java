package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.commits.CommitAnswer.Bar;
import dev.oddbeacon.core.search.FacetCounts;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.View;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What a search for commits found in some repositories, or in all.
 *
 * @param exact whether there are no others
 * @param stopped why not everything was looked at
 * @param person all authors; {@link Share#files} is how many commits
 * @param day how many were committed on each, in UTC
 * @param first those that may stand on the page, the newest first
 */
public record CommitsFound(
        long commits,
        boolean exact,
        Optional<Stop> stopped,
        List<Share> person,
        List<Share> repository,
        List<Bar> day,
        List<At> first) {
    private static final Comparator<Share> MOST_COMMITS =
            Comparator.comparingInt(Share::files).reversed().thenComparing(Share::value);
    private static final int MOST_PEOPLE = 50;

    /** A commit, as every machine knows it. @param seconds when it was committed, since 1970 */
    public record At(String repository, String commit, long seconds) {}

    /** What was found in several parts together. @param parts that have no repository in common */
    static CommitsFound merged(List<CommitsFound> parts) {
        return parts.size() == 1
                ? parts.getFirst()
                : new CommitsFound(
                        parts.stream().mapToLong(CommitsFound::commits).sum(),
                        parts.stream().allMatch(CommitsFound::exact),
                        parts.stream().flatMap(part -> part.stopped.stream()).findFirst(),
                        FacetCounts.added(parts, CommitsFound::person),
                        all(parts, CommitsFound::repository).toList(),
                        addedDays(parts),
                        all(parts, CommitsFound::first)
                                .sorted(Comparator.comparingLong(At::seconds)
                                        .reversed()
                                        .thenComparing(At::repository))
                                .toList());
    }

    private static <T> Stream<T> all(List<CommitsFound> parts, Function<CommitsFound, List<T>> of) {
        return parts.stream().flatMap(part -> of.apply(part).stream());
    }

    private static List<Bar> addedDays(List<CommitsFound> parts) {
        return all(parts, CommitsFound::day)
                .collect(Collectors.toMap(Bar::from, Bar::commits, Integer::sum, TreeMap::new))
                .entrySet()
                .stream()
                .map(entry -> new Bar(entry.getKey(), entry.getValue()))
                .toList();
    }

    boolean isIn(View view) {
        return first.stream().allMatch(at -> view.past(at.repository).graph().find(ObjectId.of(at.commit)) >= 0);
    }

    CommitAnswer.Facets facets() {
        Map<String, Integer> years = new TreeMap<>(Comparator.reverseOrder());
        day.forEach(bar -> years.merge(String.format("%04d", bar.from().getYear()), bar.commits(), Integer::sum));
        return new CommitAnswer.Facets(
                person.stream().sorted(MOST_COMMITS).limit(MOST_PEOPLE).toList(),
                repository.stream().sorted(MOST_COMMITS).toList(),
                years.entrySet().stream()
                        .map(year -> new Share(year.getKey(), year.getValue(), 0))
                        .toList(),
                Timelines.of(day));
    }
}
