package dev.oddbeacon.core.search;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Region;
import java.util.List;
import java.util.Optional;

/** Successive lines of a file, at least one of them a hit. */
public record Excerpt(List<Line> lines, Optional<Enclosing> enclosing) {
    /**
     * The innermost declaration that contains the first hit of an excerpt.
     *
     * @param line where it is declared
     */
    public record Enclosing(String name, Kind kind, String container, int line) {}

    /**
     * A line as it is shown.
     *
     * @param number from 1
     * @param text the line, or the part of a very long one around its matches
     * @param textStart where that part starts in the line, in UTF-16 units
     * @param matches in UTF-16 units of the line, not of the part
     * @param declares whether a match is in the name of a declaration, or contains one
     * @param regions the comments and strings of the line, if they were asked for; empty for very long lines
     */
    public record Line(
            int number, String text, int textStart, List<Span> matches, boolean declares, List<InRegion> regions) {
        public boolean isHit() {
            return !matches.isEmpty();
        }
    }

    /** A comment or a string, or the part of it that is on a line, from start to before end. In UTF-16 units. */
    public record InRegion(int start, int end, Region region) {}

    /** A range, the end excluded. */
    public record Span(int start, int end) {}
}
