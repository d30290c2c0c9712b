package dev.oddbeacon.api;

/**
 * A mistake in a file of a repository that keeps saved searches: {@code GET /api/v1/saved-searches/file/problems}. What the
 * file held before stays.
 *
 * @param problem what is wrong, with the line or the search
 */
public record FollowedFileProblem(String repository, String path, String problem) {}
