package dev.oddbeacon.server.search;

import io.swagger.v3.oas.annotations.Parameter;

/** The parameters of a search for files, as they come in. What is absent is null. */
record FileParameters(
        @Parameter(description = "fragments of the path, separated by spaces; without them all files of the scope") String q,
        @Parameter(description = "most files, 1 to 1000 (100)") Integer limit) {
    private static final int MOST_FILES = 1_000;

    String text() {
        return q == null ? "" : q;
    }

    int most() {
        return LineParameters.range("limit", limit, 100, 1, MOST_FILES);
    }
}
