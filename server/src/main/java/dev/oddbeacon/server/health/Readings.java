package dev.oddbeacon.server.health;

import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Activity;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Checked;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.index.CurrentView;
import dev.oddbeacon.server.records.HealthRecords;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import java.io.File;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Reads off what the service is like. */
@Component
class Readings {
    /** What was counted up to one moment since the start. */
    record Counted(Instant at, Times times, long failed) {}

    private final Catalogue catalogue;
    private final Activity activity;
    private final CurrentView current;
    private final SearchTimes searches;
    private final HealthRecords records;
    private final Clock clock;
    private final File folder;

    Readings(
            Settings settings,
            Catalogue catalogue,
            Activity activity,
            CurrentView current,
            SearchTimes searches,
            HealthRecords records,
            Clock clock) {
        this.folder = settings.data().toFile();
        this.catalogue = catalogue;
        this.activity = activity;
        this.current = current;
        this.searches = searches;
        this.records = records;
        this.clock = clock;
    }

    Counted count() {
        return new Counted(clock.instant(), searches.all(), searches.failed());
    }

    /** @param before what was counted when this reading's time began @param now when it ended: just now */
    Reading between(Counted before, Counted now) {
        List<Repository> all = catalogue.all();
        HealthRecords.Queue queue = queue();
        View view = current.acquire();
        try {
            return new Reading(
                    now.at(),
                    (int) Math.max(0, Duration.between(before.at(), now.at()).toSeconds()),
                    now.times().minus(before.times()),
                    now.failed() - before.failed(),
                    queue.waiting(),
                    queue.oldest()
                            .map(oldest -> Math.max(
                                    0, Duration.between(oldest, now.at()).toSeconds()))
                            .orElse(0L),
                    all.size(),
                    count(all, State.FAILED),
                    (int) all.stream().filter(this::isBehind).count(),
                    view.segments().size(),
                    view.segments().stream().mapToLong(SegmentReader::size).sum() + pastBytes(view),
                    folder.getUsableSpace(),
                    ThisProcess.heapAfterCollection(),
                    Runtime.getRuntime().maxMemory(),
                    ThisProcess.now());
        } finally {
            view.release();
        }
    }

    private static long pastBytes(View view) {
        return view.branches().stream()
                .map(Branch::repository)
                .distinct()
                .flatMap(repository -> view.past(repository).graph().files().stream())
                .mapToLong(HistoryReader::size)
                .sum();
    }

    private static int count(List<Repository> all, State state) {
        return (int)
                all.stream().filter(repository -> repository.state() == state).count();
    }

    private boolean isBehind(Repository repository) {
        return activity.check(repository.id()).map(check -> check.behind().is()).orElse(false);
    }

    /** Since when a repository has what is not indexed; empty if it has nothing. */
    Optional<Instant> behindSince(Repository repository) {
        return activity.check(repository.id())
                .filter(check -> check.behind().is())
                .map(Checked::changed);
    }

    /** Since when the origin of a repository has not answered; empty if it does, or was never asked. */
    Optional<Instant> silentSince(Repository repository) {
        return activity.check(repository.id())
                .filter(check -> check.problem().isPresent())
                .flatMap(Checked::answered);
    }

    /** Nobody waits if the records cannot tell: that they cannot is told elsewhere. */
    private HealthRecords.Queue queue() {
        try {
            return records.queue();
        } catch (DataAccessException | TransactionException e) {
            return new HealthRecords.Queue(0, Optional.empty());
        }
    }
}
