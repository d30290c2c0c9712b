package dev.oddbeacon.server.files;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.wire.FilePages;

/** Converts the core's answers about files to the wire format. */
final class FileAnswers {
    private FileAnswers() {}

    static FilesAnswer files(
            FileSearch search,
            String expression,
            LinesAnswer.IndexState state,
            View view,
            FileSearch.Answer answer,
            String next,
            double millis) {
        return new FilesAnswer(
                new FilesAnswer.QueryEcho(search.text(), Parameters.lower(search.reading()), expression),
                state,
                new FilesAnswer.Counts(answer.files(), answer.repositories(), answer.exact() && state.complete()),
                FilePages.facets(answer),
                FilePages.files(view, answer),
                next,
                millis);
    }
}
