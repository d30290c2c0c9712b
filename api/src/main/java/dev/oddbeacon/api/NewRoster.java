package dev.oddbeacon.api;

import java.util.List;

/**
 * A list of repositories that is followed as it changes.
 *
 * @param name {@code [A-Za-z0-9][A-Za-z0-9._-]{0,99}}
 * @param source a folder, whose repositories are those at any depth in it; a file or an http(s) address with a list; or the
 *     location of a repository that holds one
 * @param path of the list in that repository; null for the others
 * @param only globs of names; null or empty for all
 * @param rules what holds for its repositories; of those whose glob matches a name, all that they say is taken
 * @param graceDays after which a repository that is not in the list any more is taken out; 7 if it is null
 */
public record NewRoster(
        String name, String source, String path, List<String> only, List<Rule> rules, Integer graceDays) {
    /**
     * What holds for some repositories.
     *
     * @param match a glob of their names
     * @param labels that they get
     * @param branches or tags to index, names or patterns
     * @param visibleTo who sees them; where nothing is said, administrators alone
     */
    public record Rule(String match, List<String> labels, List<String> branches, List<String> visibleTo) {}
}
