package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/search/symbols}.
 *
 * @param stopped {@code time}, {@code memory} or {@code cancelled} if the search ended before it had seen everything,
 * else null
 * @param symbols declarations first
 * @param next cursor of the next page, or null
 */
public record SymbolsAnswer(
        QueryEcho query,
        LinesAnswer.IndexState index,
        String stopped,
        Counts counts,
        Facets facets,
        List<Symbol> symbols,
        String next,
        double tookMillis) {

    /** What the search was taken for; the expression is that of its scope, and of the name unless it is fragments. */
    public record QueryEcho(String text, String reading, String role, String expression) {}

    /**
     * @param symbols places; each counts once for each repository, branch and path
     * @param exact whether the counts are; lower bounds otherwise
     */
    public record Counts(long symbols, int files, int repositories, boolean exact) {}

    /**
     * Number of symbols by property, the highest first; hits are places. Kinds count declarations, and tell no files.
     *
     * @param certainty uses by how surely they mean what is asked for, where more than its name is asked for: {@code
     * sure}, {@code likely}, {@code by-name}; those that are not wanted included
     */
    public record Facets(
            List<LinesAnswer.Facet> kind,
            List<LinesAnswer.Facet> role,
            List<LinesAnswer.Facet> certainty,
            List<LinesAnswer.Facet> repository,
            List<LinesAnswer.Facet> type,
            List<LinesAnswer.Facet> trait) {}

    /**
     * A place where a symbol is declared or used.
     *
     * @param kind of the declaration; null for a use
     * @param container what it stands in, qualified; may be empty
     * @param role {@code declaration} or {@code use}
     * @param line from 1
     * @param endLine where a declaration ends; 0 for a use
     * @param column from 1, in UTF-16 units
     * @param signature what a declaration says of itself, on one line; empty for a use
     * @param text the line; of a line of more than 2,000 UTF-16 units the part around the name
     * @param textStart where that part starts in the line
     * @param matches the name, in UTF-16 units of the line
     * @param certainty of a use, where more than its name is asked for: how surely it means that; else null
     */
    public record Symbol(
            String name,
            String kind,
            String container,
            String role,
            String repository,
            String branch,
            String commit,
            String path,
            String type,
            List<String> traits,
            int line,
            int endLine,
            int column,
            String signature,
            String text,
            int textStart,
            List<LinesAnswer.Match> matches,
            String certainty) {}
}
