package dev.oddbeacon.api;

import java.util.List;

/**
 * Who may see a repository, beside administrators.
 *
 * @param visibleTo {@code everybody} who is signed in, {@code team:NAME}, {@code person:NAME}
 */
public record Viewers(List<String> visibleTo) {}
