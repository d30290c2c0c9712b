package dev.oddbeacon.api;

import java.util.List;

/**
 * What an exclusion set would do: the answer to {@code POST /api/v1/exclusion-sets/preview}.
 *
 * @param files of the scope
 * @param left of them, once the set has been applied
 * @param mistakes lines that are no pattern, with places in the text
 */
public record ExclusionPreview(
        int files, int left, List<Pattern> patterns, List<Problem.Mistake> mistakes, double tookMillis) {

    /** The body of the request. */
    public record Request(String patterns) {}

    /**
     * What one pattern does. A file counts for the last pattern that decides it.
     *
     * @param line in the text, from 1
     * @param bringsBack whether it brings files back that patterns before it took out
     * @param files that it takes out, or brings back
     * @param folders that it matches as a whole, with so many of its files in them
     * @param warning what people should know, or null
     */
    public record Pattern(
            int line,
            String text,
            boolean bringsBack,
            int files,
            int folders,
            int filesInFolders,
            List<Sample> sampleFolders,
            List<Sample> sampleFiles,
            String warning) {}

    /** A folder with its files, or a file, whose count is 1. */
    public record Sample(String repository, String branch, String path, int files) {}
}
