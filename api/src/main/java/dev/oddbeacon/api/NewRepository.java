package dev.oddbeacon.api;

import java.util.List;

/**
 * What {@code POST /api/v1/repositories} takes.
 *
 * @param name {@code [A-Za-z0-9][A-Za-z0-9._-]{0,99}}
 * @param title for people; the name if it is null
 * @param location a local folder, or a file, http(s) or ssh URL
 * @param branches or tags to index, the first one by default searched; null or empty for the repository's HEAD
 * @param visibleTo {@code everybody} who is signed in, {@code team:NAME}, {@code person:NAME}; whoever registers it alone
 *     by default. Without accounts it means nothing
 */
public record NewRepository(
        String name,
        String title,
        String location,
        List<String> branches,
        List<String> labels,
        List<String> visibleTo) {}
