package dev.oddbeacon.server.files;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.wire.Parts;
import java.time.Instant;
import java.util.List;

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
        List<FilesAnswer.File> files = answer.page().stream()
                .map(found -> {
                    Branch branch = view.branch(found.branchNumber());
                    SnapshotFile file = view.snapshot(found.branchNumber()).file(found.file());
                    List<LinesAnswer.Match> matches = Parts.matches(found.matches());
                    return found.kind() == FileSearch.Kind.FOLDER
                            ? new FilesAnswer.File(
                                    branch.repository(),
                                    branch.name(),
                                    branch.commit(),
                                    found.path(),
                                    "folder",
                                    "",
                                    List.of(),
                                    0,
                                    0,
                                    branch.committed(),
                                    null,
                                    matches)
                            : new FilesAnswer.File(
                                    branch.repository(),
                                    branch.name(),
                                    branch.commit(),
                                    found.path(),
                                    "file",
                                    file.type(),
                                    Traits.labels(file.traits()),
                                    file.bytes(),
                                    file.lines(),
                                    Instant.ofEpochSecond(view.lastChanges(found.branchNumber())
                                            .seconds(found.file())),
                                    file.standing() == SnapshotFile.Standing.SEARCHED
                                            ? null
                                            : file.standing().reason(),
                                    matches);
                })
                .toList();
        FileSearch.Facets facets = answer.facets();
        return new FilesAnswer(
                new FilesAnswer.QueryEcho(search.text(), Parameters.lower(search.reading()), expression),
                state,
                new FilesAnswer.Counts(answer.files(), answer.repositories(), state.complete()),
                new FilesAnswer.Facets(
                        Parts.facet(facets.repository()), Parts.facet(facets.type()), Parts.facet(facets.trait())),
                files,
                next,
                millis);
    }
}
