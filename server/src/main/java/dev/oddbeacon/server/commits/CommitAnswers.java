package dev.oddbeacon.server.commits;

import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.core.commits.CommitAnswer;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.search.Facets;
import dev.oddbeacon.server.web.Parameters;
import dev.oddbeacon.server.wire.CommitInfos;
import dev.oddbeacon.wire.Parts;
import java.util.List;

/** Converts the core's answers about commits to the wire format. */
final class CommitAnswers {
    private CommitAnswers() {}

    static CommitsAnswer.Commit found(CommitAnswer.Found found) {
        return new CommitsAnswer.Commit(
                CommitInfos.listed(found.repository(), found.commit()),
                Parts.matches(found.matches().stream()
                        .filter(match -> CommitInfos.isListed(match.end()))
                        .toList()),
                found.files().stream().map(CommitAnswers::file).toList(),
                found.fileCount(),
                found.lines().stream()
                        .map(line -> new CommitsAnswer.Line(
                                line.path(),
                                line.added() ? "+" : "-",
                                line.line().number(),
                                line.line().text(),
                                line.line().textStart(),
                                Parts.matches(line.line().matches())))
                        .toList());
    }

    static CommitInfo.ChangedFile file(CommitAnswer.File file) {
        return new CommitInfo.ChangedFile(
                file.path(),
                file.kind().label(),
                file.kind() == PathChange.Kind.RENAMED ? file.from() : null,
                file.added(),
                file.removed(),
                file.binary());
    }

    static CommitsAnswer.Facets facets(CommitAnswer.Facets facets) {
        return new CommitsAnswer.Facets(
                shares(facets.person()),
                shares(facets.repository()),
                shares(facets.year()),
                new CommitsAnswer.Timeline(
                        Parameters.lower(facets.timeline().unit()),
                        facets.timeline().bars().stream()
                                .map(bar -> new CommitsAnswer.Bar(bar.from(), bar.commits()))
                                .toList()));
    }

    private static List<CommitsAnswer.Facet> shares(List<Facets.Share> shares) {
        return shares.stream()
                .map(share -> new CommitsAnswer.Facet(share.value(), share.files()))
                .toList();
    }
}
