package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/calls}: who calls something, or what it calls. One level; each end can be asked in
 * turn.
 *
 * @param of what was asked for: several declarations if several have the name
 * @param direction callers or callees
 * @param ends the surest first; of callees in the order of the calls; at most 300
 * @param byName places of the name, or names that are called, that nothing but the name speaks for: they are in no end
 * @param exact whether all places were looked at
 */
public record CallsAnswer(List<SymbolAt.Target> of, String direction, List<End> ends, long byName, boolean exact) {
    /**
     * The other end of calls.
     *
     * @param declaration null if the calls stand in none: the file itself makes them
     * @param at what asks for the calls of this end in turn, as REPOSITORY/PATH:LINE:COLUMN; null if nothing can be asked
     * @param certainty of the surest of the calls: sure or likely
     */
    public record End(
            SymbolAt.Target declaration,
            String repository,
            String branch,
            String path,
            String at,
            String certainty,
            List<Site> sites) {}

    /**
     * A place where a call is made.
     *
     * @param line from 1
     * @param column from 1, in UTF-16 units
     * @param text of the line
     */
    public record Site(int line, int column, String text, String certainty) {}
}
