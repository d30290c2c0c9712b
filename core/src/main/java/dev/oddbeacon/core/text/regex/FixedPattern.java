package dev.oddbeacon.core.text.regex;

import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;

/**
 * A regular expression of this program's own, held against texts of others: whether it occurs on a line of them. Takes
 * time in proportion to the text, whatever that is.
 *
 * <p>Concurrency: thread-safe. An automaton learns its states as it runs, so those that are free are kept and lent.
 */
public final class FixedPattern {
    private final LineRegex regex;
    private final Queue<LineRegex.Finder> free = new ConcurrentLinkedQueue<>();

    private FixedPattern(LineRegex regex) {
        this.regex = regex;
    }

    /** @throws RegexSyntaxException if it is not valid */
    public static FixedPattern of(String pattern) {
        return new FixedPattern(LineRegex.of(RegexParser.parse(pattern, false).regex()));
    }

    /** For texts that are matched as a whole. */
    public static FixedPattern ofWhole(String pattern) {
        return of("^(?:" + pattern + ")$");
    }

    /** Whether it occurs on a line of a text. */
    public boolean isIn(String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        if (utf8.length == 0) {
            return false;
        }
        LineRegex.Finder lent = free.poll();
        LineRegex.Finder finder = lent == null ? regex.finder(() -> false) : lent;
        boolean found = finder.nextLine(MemorySegment.ofArray(utf8), 0, utf8.length);
        free.add(finder);
        return found;
    }
}
