package dev.oddbeacon.api;

import java.util.List;

/** The answer to {@code GET /api/v1/search/lines/second-looks}: changed searches that would have found something. */
public record SecondLooks(List<Look> looks, double tookMillis) {

    /**
     * @param change what was changed, in words
     * @param text the text to search for; reading, caseMode and word say how
     * @param scope limits that are left
     * @param hits lines it finds
     * @param exact whether the counts are; lower bounds otherwise
     */
    public record Look(String change, String text, String reading, String caseMode, boolean word, Scope scope, long hits, int files, boolean exact) {}

    /** Limits by the names of the parameters that set them. */
    public record Scope(List<String> repo, List<String> label, List<String> branch, List<String> under, List<String> notUnder, List<String> type, List<String> trait,
            List<String> notTrait, List<String> except, List<String> lift, List<String> file, List<String> changedAfter, List<String> changedBefore, List<String> region, List<String> notRegion) {}
}
