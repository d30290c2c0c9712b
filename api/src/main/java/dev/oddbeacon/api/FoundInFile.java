package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/file/matches}.
 *
 * @param matches in UTF-16 units of the whole text, ascending; at most 10,000
 * @param more whether there are more of them
 */
public record FoundInFile(
        String repository, String commit, String path, List<LinesAnswer.Match> matches, boolean more) {}
