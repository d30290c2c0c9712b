package dev.oddbeacon.server.history;

import dev.oddbeacon.api.CommitInfo;
import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.history.Commit;
import dev.oddbeacon.core.history.Mailmap;
import dev.oddbeacon.core.history.PathChange;
import dev.oddbeacon.core.search.CommitAnswer;
import dev.oddbeacon.core.search.LineAnswer;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;

/** From commits of the core to the wire format. */
final class Commits {
    private static final int MOST_ZONE = 18 * 60;

    private Commits() {}

    static CommitInfo info(String repository, Commit commit) {
        return new CommitInfo(repository, commit.id().toString(), person(commit.author()), when(commit.authored()), person(commit.committer()), when(commit.committed()),
                commit.parents().stream().map(Object::toString).toList(), Commit.summary(commit.message()), commit.message());
    }

    /** With people as a mailmap names them. */
    static CommitInfo info(String repository, Commit commit, Mailmap mailmap) {
        return info(repository, new Commit(commit.id(), commit.parents(), mailmap.proper(commit.author()), commit.authored(), mailmap.proper(commit.committer()), commit.committed(), commit.message()));
    }

    static CommitInfo.Person person(Commit.Person person) {
        return new CommitInfo.Person(person.name(), person.email());
    }

    /** Dates that no calendar has become the nearest that one has. */
    static OffsetDateTime when(Commit.Moment moment) {
        try {
            return OffsetDateTime.ofInstant(Instant.ofEpochSecond(moment.seconds()), ZoneOffset.ofTotalSeconds(60 * Math.clamp(moment.zoneMinutes(), -MOST_ZONE, MOST_ZONE)));
        } catch (DateTimeException e) {
            return OffsetDateTime.ofInstant(Instant.EPOCH, ZoneOffset.UTC);
        }
    }

    static CommitsAnswer.Commit found(CommitAnswer.Found found) {
        return new CommitsAnswer.Commit(info(found.repository(), found.commit()), matches(found.matches()), found.files().stream().map(Commits::file).toList(), found.fileCount(),
                found.lines().stream().map(line -> new CommitsAnswer.Line(line.path(), line.added() ? "+" : "-", line.line().number(), line.line().text(), line.line().textStart(), matches(line.line().matches()))).toList());
    }

    static CommitInfo.ChangedFile file(CommitAnswer.File file) {
        return new CommitInfo.ChangedFile(file.path(), file.kind().label(), file.kind() == PathChange.Kind.RENAMED ? file.from() : null, file.added(), file.removed(), file.binary());
    }

    private static List<LinesAnswer.Match> matches(List<LineAnswer.Span> spans) {
        return spans.stream().map(span -> new LinesAnswer.Match(span.start(), span.end())).toList();
    }

    static CommitsAnswer.Facets facets(CommitAnswer.Facets facets) {
        return new CommitsAnswer.Facets(shares(facets.person()), shares(facets.repository()), shares(facets.year()), new CommitsAnswer.Timeline(facets.timeline().unit().name().toLowerCase(Locale.ROOT),
                facets.timeline().bars().stream().map(bar -> new CommitsAnswer.Bar(bar.from(), bar.commits())).toList()));
    }

    private static List<CommitsAnswer.Facet> shares(List<LineAnswer.Share> shares) {
        return shares.stream().map(share -> new CommitsAnswer.Facet(share.value(), share.files())).toList();
    }
}
