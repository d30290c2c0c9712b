package dev.oddbeacon.api;

import java.util.List;
import java.util.Map;

/** The answer to {@code GET /api/v1/search/lines/second-looks}: changed searches that would have found something. */
public record SecondLooks(List<Look> looks, double tookMillis) {

    /**
     * @param change what was changed, in words
     * @param text the text to search for; reading, caseMode and word say how
     * @param scope values by the parameter that takes them, all parameters of a scope
     * @param hits lines it finds
     * @param exact whether the counts are; lower bounds otherwise
     */
    public record Look(
            String change,
            String text,
            String reading,
            String caseMode,
            boolean word,
            Map<String, List<String>> scope,
            long hits,
            int files,
            boolean exact) {}
}
