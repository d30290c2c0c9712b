package dev.oddbeacon.api;

import java.util.List;
import java.util.Map;

/**
 * Why a file is among the results of a search, or is not: the answer to {@code GET /api/v1/search/lines/about}.
 *
 * @param indexed whether the file is in the index; nothing else is told if it is not, but for the nearest paths
 * @param nearestPaths of a file that is not in the index
 * @param found whether it is among the results
 * @param hits lines of it that match the text alone, whatever the scope
 * @param traits each with the reason
 * @param checks the limits of the search, one by one
 * @param nearest where no line matches, the one that shares the most words with the text; else null
 */
public record AboutFile(
        String repository,
        String branch,
        String path,
        boolean indexed,
        List<String> nearestPaths,
        boolean found,
        long hits,
        String type,
        Map<String, String> traits,
        List<Check> checks,
        Nearest nearest) {

    /** @param limit as an expression, or in words */
    public record Check(String limit, boolean holds, String why) {}

    /** @param number from 1 */
    public record Nearest(int number, String text) {}
}
