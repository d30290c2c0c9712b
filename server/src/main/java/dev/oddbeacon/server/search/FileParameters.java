package dev.oddbeacon.server.search;

import dev.oddbeacon.core.search.Scope;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.List;

/** The parameters of a search for files, as they come in. What is absent is null. */
record FileParameters(
        @Parameter(description = "fragments of the path, separated by spaces; without them all files of the scope") String q,
        @Parameter(description = "glob for names of repositories; several mean or") List<String> repo,
        @Parameter(description = "glob for labels of repositories") List<String> label,
        @Parameter(description = "glob for branches and tags; without it each repository's default branch") List<String> branch,
        @Parameter(description = "glob for folders or files; with a slash from the root of the repository") List<String> under,
        @Parameter(description = "glob for folders or files that are left out") List<String> notUnder,
        @Parameter(description = "most files, 1 to 1000 (100)") Integer limit) {
    private static final int MOST_FILES = 1_000;

    String text() {
        return q == null ? "" : q;
    }

    Scope scope() {
        return LineParameters.scope(repo, label, branch, under, notUnder);
    }

    int most() {
        return LineParameters.range("limit", limit, 100, 1, MOST_FILES);
    }
}
