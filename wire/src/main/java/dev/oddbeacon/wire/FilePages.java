package dev.oddbeacon.wire;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Traits;
import java.time.Instant;
import java.util.List;

/** Files and folders that were found, as answers tell them. */
public final class FilePages {
    private FilePages() {}

    /** The files of a page. */
    public static List<FilesAnswer.File> files(View view, FileSearch.Answer answer) {
        return answer.page().stream()
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
    }

    /** What the files of an answer have in common. */
    public static FilesAnswer.Facets facets(FileSearch.Answer answer) {
        FileSearch.Facets facets = answer.facets();
        return new FilesAnswer.Facets(
                Parts.facet(facets.repository()), Parts.facet(facets.type()), Parts.facet(facets.trait()));
    }
}
