package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;
import java.util.Map;

/**
 * A search that is kept under a name: {@code GET /api/v1/saved-searches}.
 *
 * @param of whose it is: {@code everybody}, {@code team:NAME}, {@code me} for the caller's own, or {@code repository:NAME}
 *     for one that a repository keeps in a file
 * @param subject what it searches: lines, files, symbols or commits; or scope, which is picked in searches
 * @param parameters of {@code GET /api/v1/search/SUBJECT}, without those that only say how to answer
 * @param replacement what stands instead of what it finds; null of one that only finds
 * @param worklist whether what it finds is ticked off, see {@link Worklist}
 * @param source the path of that file; null of the others
 * @param problem why it cannot be run as it is; null if it can
 * @param version of it; who changes or removes it says which version they have seen
 * @param changedBy the account that did; null where nobody signs in
 */
public record SavedSearch(
        String name,
        String of,
        String description,
        String subject,
        Map<String, List<String>> parameters,
        Instead replacement,
        boolean worklist,
        String source,
        String problem,
        long version,
        Instant changed,
        String changedBy) {

    /** What is searched. */
    public enum Subject {
        LINES,
        FILES,
        SYMBOLS,
        COMMITS,
        /** No search: a scope alone. */
        SCOPE
    }

    /**
     * What stands instead of what a search for lines or symbols finds, see {@link Replacement}.
     *
     * @param in {@code text}, {@code paths} or {@code both}
     */
    public record Instead(String with, Boolean keepCase, String in, Boolean mentions) {}

    /**
     * The body of {@code PUT /api/v1/saved-searches/{name}}.
     *
     * @param worklist whether what it finds is ticked off, see {@link Worklist}; null leaves that as it is
     * @param version of the one that is changed; null to make a new one
     */
    public record Change(
            String of,
            String description,
            String subject,
            Map<String, List<String>> parameters,
            Instead replacement,
            Boolean worklist,
            Long version) {

        /** Of a search that only finds. */
        public Change(
                String of, String description, String subject, Map<String, List<String>> parameters, Long version) {
            this(of, description, subject, parameters, null, null, version);
        }
    }
}
