package dev.oddbeacon.core.exclusion;

import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.query.InvalidQueryException;
import java.util.Optional;

/**
 * One line of an exclusion set, in the syntax of Git's ignore files: see the gitignore manual of Git.
 *
 * @param line its number in the set, from 1
 * @param text as it was written
 * @param bringsBack whether it brings back what patterns before it took out: {@code !name}
 * @param foldersOnly whether it matches folders only: {@code name/}
 * @param anchored whether it matches from the root of the repository, not any name at any depth
 * @param glob for the path if it is anchored, for the name otherwise
 */
public record ExclusionPattern(
        int line, String text, boolean bringsBack, boolean foldersOnly, boolean anchored, Glob glob) {
    /**
     * Reads a line.
     *
     * @return nothing for an empty line or a comment
     * @throws InvalidQueryException if it is not valid, with the place in the line
     */
    public static Optional<ExclusionPattern> of(int line, String text) {
        String pattern = withoutLastSpaces(text.endsWith("\r") ? text.substring(0, text.length() - 1) : text);
        if (pattern.isEmpty() || pattern.startsWith("#")) {
            return Optional.empty();
        }
        boolean bringsBack = pattern.startsWith("!");
        String rest = bringsBack ? pattern.substring(1) : pattern;
        boolean foldersOnly = rest.endsWith("/");
        rest = foldersOnly ? rest.substring(0, rest.length() - 1) : rest;
        boolean anchored = rest.indexOf('/') >= 0;
        rest = rest.startsWith("/") ? rest.substring(1) : rest;
        if (rest.isEmpty()) {
            throw new InvalidQueryException(
                    bringsBack
                            ? "There is nothing after this \"!\". Write what to bring back."
                            : "This matches nothing. Write a name, or ** for everything.",
                    0);
        }
        return Optional.of(
                new ExclusionPattern(line, text.strip(), bringsBack, foldersOnly, anchored, Glob.ofGit(rest)));
    }

    /** Spaces at the end are no part of a pattern, unless a backslash stands before them. */
    private static String withoutLastSpaces(String text) {
        int end = text.length();
        while (end > 0 && text.charAt(end - 1) == ' ' && !(end > 1 && text.charAt(end - 2) == '\\')) {
            end--;
        }
        return text.substring(0, end);
    }

    /** Whether it matches a file or a folder itself, not what is below. */
    public boolean matches(String path, boolean isFolder) {
        return matches(path, path.substring(path.lastIndexOf('/') + 1), isFolder);
    }

    boolean matches(String path, String name, boolean isFolder) {
        return (isFolder || !foldersOnly) && glob.matches(anchored ? path : name);
    }
}
