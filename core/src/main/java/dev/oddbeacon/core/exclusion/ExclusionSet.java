package dev.oddbeacon.core.exclusion;

import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;

/**
 * Patterns that take files out of a scope, each set by itself, from the root of each repository. As in Git, the last
 * pattern that matches a file or a folder decides, and nothing is brought back from within a folder that is out.
 */
public final class ExclusionSet {
    /** More are refused: nobody reads them. */
    public static final int MOST_PATTERNS = 20_000;

    private final List<ExclusionPattern> patterns;

    private ExclusionSet(List<ExclusionPattern> patterns) {
        this.patterns = patterns;
    }

    /**
     * What was read: mistakes do not keep the other patterns from being used.
     *
     * @param mistakes with places in the text
     */
    public record Parsed(ExclusionSet set, List<Mistake> mistakes) {}

    /** @param text one pattern a line */
    public static Parsed parse(String text) {
        List<ExclusionPattern> patterns = new ArrayList<>();
        List<Mistake> mistakes = new ArrayList<>();
        int number = 0;
        for (int start = 0; start <= text.length(); ) {
            int end = text.indexOf('\n', start);
            end = end < 0 ? text.length() : end;
            number++;
            try {
                ExclusionPattern.of(number, text.substring(start, end)).ifPresent(patterns::add);
            } catch (InvalidQueryException e) {
                mistakes.add(new Mistake(
                        "Line " + number + ": " + e.getMessage(), start, end - start, Optional.empty(), false));
            }
            start = end + 1;
        }
        if (patterns.size() > MOST_PATTERNS) {
            mistakes.add(new Mistake(
                    "There are " + patterns.size() + " patterns; at most " + MOST_PATTERNS
                            + " are taken. Name folders instead of files.",
                    0,
                    0,
                    Optional.empty(),
                    false));
            patterns = patterns.subList(0, MOST_PATTERNS);
        }
        return new Parsed(new ExclusionSet(List.copyOf(patterns)), List.copyOf(mistakes));
    }

    /** A set of only the patterns with these indexes. */
    public ExclusionSet only(List<Integer> indexes) {
        return new ExclusionSet(indexes.stream().map(patterns::get).toList());
    }

    public List<ExclusionPattern> patterns() {
        return patterns;
    }

    /** The files of a snapshot that are out, by number. */
    public BitSet excluded(SnapshotReader snapshot) {
        BitSet excluded = new BitSet(snapshot.count());
        walk(snapshot, (file, _, charge) -> {
            if (charge.isOut()) {
                excluded.set(file);
            }
        });
        return excluded;
    }

    /** Tells each file of a snapshot with the pattern that decided it, an index into {@link #patterns}. */
    public void walk(SnapshotReader snapshot, ExclusionWalk.Visitor visitor) {
        ExclusionWalk walk = walk(visitor);
        snapshot.forEachPath((path, file) -> walk.visit(file, path));
    }

    /** For callers that have the paths already and pass them in order. */
    public ExclusionWalk walk(ExclusionWalk.Visitor visitor) {
        return new ExclusionWalk(patterns, visitor);
    }
}
