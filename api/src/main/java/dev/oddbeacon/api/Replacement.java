package dev.oddbeacon.api;

import java.util.List;
import java.util.Map;

/**
 * What stands instead of what a search matches, or of whole lines: the body of
 * {@code POST /api/v1/replacements/preview} and {@code …/patches}.
 *
 * @param subject {@code lines}, the default, or {@code symbols}: declarations and uses of a name, in code
 * @param parameters of {@code GET /api/v1/search/SUBJECT}: a plain text, a regular expression or a name, and its scope; null
 *     if only lines are edited
 * @param with what stands instead; of a regular expression {@code $1}, <code>${name}</code> and {@code $0} are its groups
 * @param keepCase whether it is written in capitals, or begins with one, where the match does
 * @param in {@code text}, the default, {@code paths}, whose files are renamed, or {@code both}
 * @param mentions of a symbol: whether its name is replaced in comments and strings as well
 * @param generated whether generated, vendored, minified and translated files are changed as well
 * @param except what is left as it is: {@code REPOSITORY}, {@code REPOSITORY/PATH}, {@code REPOSITORY/PATH:LINE:COLUMN}, or
 *     {@code REPOSITORY/PATH:path}, which is not renamed
 * @param own what stands instead of a single match, by {@code REPOSITORY/PATH:LINE:COLUMN}; by {@code REPOSITORY/PATH:path}
 *     the whole path
 * @param lines that are written anew, instead of a search or beside one, whose matches in them then do not count
 * @param message of a commit: patches are mails then, which {@code git am} commits; null for plain patches
 * @param author of the commit, {@code Name <address>}; wanted with a message
 */
public record Replacement(
        String subject,
        Map<String, List<String>> parameters,
        String with,
        Boolean keepCase,
        String in,
        Boolean mentions,
        Boolean generated,
        List<String> except,
        Map<String, String> own,
        List<EditedLine> lines,
        String message,
        String author) {

    /** Where something is replaced. */
    public enum In {
        TEXT,
        PATHS,
        BOTH
    }

    /**
     * A line that is written anew.
     *
     * @param branch null for the default branch
     * @param line from 1
     * @param was what it is; if it is not any more, its file stays as it is
     * @param with what stands instead; may hold line feeds
     */
    public record EditedLine(String repository, String branch, String path, int line, String was, String with) {}

    /**
     * What would change.
     *
     * @param matches that something else would stand instead of
     * @param files that would change, at most 500 of them with their changes
     * @param fileCount how many there are
     * @param renamed how many of them would be renamed
     * @param repositories in which something would change
     * @param left files that stay as they are although they match, with the reason
     * @param outside where the text stands outside the scope as well; null of a symbol, or if there is no scope
     * @param symbol how sure its uses are; null of lines
     */
    public record Preview(
            int matches,
            List<File> files,
            int fileCount,
            int renamed,
            List<String> repositories,
            List<Left> left,
            Outside outside,
            Symbol symbol) {}

    /** @param hits lines that match @param files with such a line, or with more than in the scope */
    public record Outside(long hits, int files) {}

    /**
     * How surely what would change is the symbol that is meant.
     *
     * @param declarations that are meant
     * @param containers what they stand in, at most 20
     * @param uses that would change
     * @param sure those of them that surely mean one of the declarations
     * @param likely those that likely do
     * @param others uses of the same name that stay, because more than the name was asked for and they do not mean it
     */
    public record Symbol(int declarations, List<String> containers, int uses, int sure, int likely, int others) {}

    /**
     * A file that would change.
     *
     * @param newPath null if its name stays
     */
    public record File(
            String repository, String branch, String commit, String path, String newPath, List<Change> changes) {}

    /**
     * One match.
     *
     * @param line from 1, of the file as it is
     * @param column from 1, in UTF-16 units
     * @param before the lines that the match is in
     * @param after the same, with this match alone replaced
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

    /** A file as it would be: the answer to {@code POST /api/v1/replacements/file}. @param path that it would have */
    public record After(String path, String text) {}

    /** A file that stays as it is. */
    public record Left(String repository, String path, String why) {}
}
