package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/outline}.
 *
 * @param language that the file was analysed in; null if it was not, because there is no profile for its type, or its
 * analysis was given up
 * @param total declarations of the file; more than there are symbols if they are very many
 */
public record Outline(
        String repository,
        String branch,
        String commit,
        String path,
        String type,
        String language,
        int total,
        List<Symbol> symbols) {
    /**
     * A declaration.
     *
     * @param container what it stands in, qualified; may be empty
     * @param depth how many declarations of the file it stands in
     * @param line from 1
     * @param column of the name, from 1, in UTF-16 units
     * @param uses of the name, in all repositories, whatever declares it; null if it was not asked for, or would have
     * taken long
     * @param usesMeant uses that mean this one, surely or likely; null if it was not asked for, would have taken long, or
     * the types of the language are not read
     */
    public record Symbol(
            String name,
            String kind,
            String container,
            int depth,
            int line,
            int endLine,
            int column,
            String signature,
            Long uses,
            Long usesMeant) {}
}
