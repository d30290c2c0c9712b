package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/overview}: what the caller may see, in short.
 *
 * @param repositories registered
 * @param waiting of them for a job
 * @param indexing of them now
 * @param failed of them
 * @param labels of all of them, in their order
 * @param commits a word that is another one whenever other commits of them are indexed
 */
public record Overview(int repositories, int waiting, int indexing, int failed, List<String> labels, String commits) {}
