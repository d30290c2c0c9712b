package dev.oddbeacon.client.options;

import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.function.ToLongFunction;

/**
 * Asks for one page after another until there are as many results as wanted.
 *
 * @param first the first page, which tells of all results
 * @param cut whether there are more results than were asked for
 */
public record Pages<P>(P first, boolean cut) {
    /**
     * @param most results that are wanted
     * @param size most results of a page
     * @param ask gets a page: by the cursor, empty for the first, and how many results it may have
     * @param take is told each page; says how many results it has
     * @param next the cursor of the page after one, or null
     */
    public static <P> Pages<P> of(
            long most, int size, BiFunction<String, Integer, P> ask, ToLongFunction<P> take, Function<P, String> next) {
        long left = most;
        String cursor = "";
        P first = null;
        do {
            P page = ask.apply(cursor, (int) Math.min(left, size));
            first = first == null ? page : first;
            left -= take.applyAsLong(page);
            cursor = next.apply(page);
        } while (cursor != null && left > 0);
        return new Pages<>(first, cursor != null);
    }
}
