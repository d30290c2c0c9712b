package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/translations}: a text in all languages, and the code that shows it.
 *
 * @param key of the text, with what it stands in
 * @param languages the one that was asked about first
 * @param form how code names the key
 * @param uses lines of code that name it, what is close to the file first; at most 50
 * @param usesTotal how many there are
 * @param exact whether they were all counted
 */
public record TranslationsAnswer(
        String repository,
        String branch,
        String commit,
        String key,
        List<Language> languages,
        String form,
        List<Use> uses,
        long usesTotal,
        boolean exact) {
    /**
     * The text of one language.
     *
     * @param language as the path names it
     * @param line from 1
     * @param text the line that the key stands on
     */
    public record Language(String language, String path, int line, String text) {}

    /** A line that names the key. @param line from 1 */
    public record Use(String repository, String branch, String path, int line, String text) {}
}
