package dev.oddbeacon.api;

import java.util.List;
import java.util.Map;

/**
 * What stands instead of what a search for lines matches: the body of {@code POST /api/v1/replacements/preview} and
 * {@code …/patches}.
 *
 * @param parameters of {@code GET /api/v1/search/lines}: a plain text or a regular expression, and its scope
 * @param with what stands instead; of a regular expression {@code $1}, <code>${name}</code> and {@code $0} are its groups
 * @param keepCase whether it is written in capitals, or begins with one, where the match does
 * @param except what is left as it is: {@code REPOSITORY}, {@code REPOSITORY/PATH}, or {@code REPOSITORY/PATH:LINE:COLUMN}
 * @param own what stands instead of a single match, by {@code REPOSITORY/PATH:LINE:COLUMN}
 * @param generated whether generated and vendored files are changed as well
 * @param message of a commit: patches are mails then, which {@code git am} commits; null for plain patches
 * @param author of the commit, {@code Name <address>}; wanted with a message
 */
public record Replacement(
        Map<String, List<String>> parameters,
        String with,
        Boolean keepCase,
        List<String> except,
        Map<String, String> own,
        Boolean generated,
        String message,
        String author) {

    /**
     * What would change.
     *
     * @param matches that something else would stand instead of
     * @param files that would change, at most 500 of them with their changes
     * @param fileCount how many there are
     * @param left files that stay as they are although they match, with the reason
     */
    public record Preview(int matches, List<File> files, int fileCount, List<Left> left) {}

    /** A file that would change. */
    public record File(String repository, String branch, String commit, String path, List<Change> changes) {}

    /**
     * One match.
     *
     * @param line from 1, of the file as it is
     * @param column from 1, in UTF-16 units
     * @param before the lines that the match is in
     * @param after the same, with this match and those before it on the line replaced
     * @param match that is replaced
     * @param with what stands instead
     * @param applied false for one that is left as it is
     * @param warnings what whoever replaces it may want to know
     */
    public record Change(
            int line,
            int column,
            String before,
            String after,
            String match,
            String with,
            boolean applied,
            List<String> warnings) {}

    /** A file that stays as it is. */
    public record Left(String repository, String path, String why) {}
}
