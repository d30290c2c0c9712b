package dev.oddbeacon.api;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;

/**
 * A saved search whose results a team ticks off: {@code GET /api/v1/worklists}.
 *
 * @param search its name
 * @param of whose search it is, as in {@link SavedSearch}
 * @param open items that are to be done, claimed or not
 * @param claimed of those, how many somebody is at
 * @param done items that somebody says are done, and that are still found
 * @param stays items that stay, with a reason
 * @param gone items that are not found any more
 * @param problem why the search cannot be looked at; null if it can
 */
public record Worklist(
        String search,
        String of,
        int open,
        int claimed,
        int done,
        int stays,
        int gone,
        Instant made,
        String madeBy,
        String problem) {

    /** What an item is in. */
    public enum State {
        OPEN,
        DONE,
        STAYS,
        GONE
    }

    /**
     * One of its items: the same one although lines move, its file is renamed, or a part of its line is edited.
     *
     * @param state {@code open}, {@code done}, {@code stays} or {@code gone}
     * @param owners of its file, as its repository says in CODEOWNERS; none if nobody is named
     * @param claimedBy who is at it; null for nobody
     * @param why it stays; empty if nobody said so
     * @param version of it; who changes it says which version they have seen
     */
    public record Item(
            long id,
            Result result,
            String state,
            List<String> owners,
            String claimedBy,
            String why,
            Instant changed,
            String changedBy,
            long version) {}

    /**
     * Items in the order of repositories, paths and lines.
     *
     * @param count how many there are
     * @param at {@code since} for those that are changed later; some seconds ago, so that nothing is missed
     */
    public record Items(List<Item> items, int count, Instant at) {}

    /**
     * The body of {@code PUT /api/v1/worklists/{search}/items/{id}}. What is null stays as it is.
     *
     * @param state {@code open}, {@code done} or {@code stays}
     * @param claimed whether the caller is at it
     * @param by the name of whoever changes it, where nobody signs in
     * @param version that was seen
     */
    public record Change(String state, Boolean claimed, String why, String by, Long version) {}

    /**
     * How it shrinks: {@code GET /api/v1/worklists/{search}/left}.
     *
     * @param days ascending, those on which something changed
     * @param zero when nothing is left if it goes on as in the last four weeks; null if it does not shrink
     */
    public record Left(List<Day> days, LocalDate zero) {}

    /** What was open at the end of a day, in all, by repository and by owners. */
    public record Day(LocalDate day, int items, List<OfRepository> repositories, List<OfOwners> owners) {}

    /** What of it was in one repository. */
    public record OfRepository(String repository, int items) {}

    /** What of it was in files of the same owners. @param owners several with spaces between; empty if nobody is named */
    public record OfOwners(String owners, int items) {}
}
