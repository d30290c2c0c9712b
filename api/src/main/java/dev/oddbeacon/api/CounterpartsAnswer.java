package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/counterparts}: from code to its test and back.
 *
 * @param test whether the file itself is named as a test
 * @param byConvention paths of the files that are named for it, the nearest first
 * @param candidates where there are none, the likeliest
 */
public record CounterpartsAnswer(boolean test, List<String> byConvention, List<String> candidates) {}
