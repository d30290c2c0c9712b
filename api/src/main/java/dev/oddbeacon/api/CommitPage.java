package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/commits/{id}}.
 *
 * @param branches that contain it
 * @param tags that contain it
 * @param children commits that have it as a parent, as far as they are indexed
 */
public record CommitPage(CommitInfo commit, List<String> branches, List<String> tags, List<String> children) {}
