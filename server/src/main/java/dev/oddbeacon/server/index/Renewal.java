package dev.oddbeacon.server.index;

import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.processes.Claims;
import dev.oddbeacon.server.processes.Processes;
import java.io.IOException;
import java.time.Duration;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * Writes anew what is indexed for another group than it belongs to by now, or by an earlier version of the analysis, while
 * it is searched: repository by repository from their mirrors, then segment by segment. One process does it.
 */
@Component
class Renewal implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Renewal.class);
    private static final Duration REST = Duration.ofSeconds(1);
    private static final long ALL = 0; // the claim is of no single repository

    private final Processes processes;
    private final Claims claims;
    private final Disk disk;
    private final Catalogue catalogue;
    private final IndexUpkeep upkeep;
    private final IndexRun run;
    private final SegmentOrder order;
    private final Rounds rounds = new Rounds("renewal", REST, this::round);
    private final Set<String> failed = new HashSet<>(); // until the next start, or until they are fetched again
    private boolean told; // that there is something to do

    Renewal(
            Processes processes,
            Claims claims,
            Disk disk,
            Catalogue catalogue,
            IndexUpkeep upkeep,
            IndexRun run,
            SegmentOrder order) {
        this.processes = processes;
        this.claims = claims;
        this.disk = disk;
        this.catalogue = catalogue;
        this.upkeep = upkeep;
        this.run = run;
        this.order = order;
    }

    @Override
    public void start() {
        if (processes.has(Duty.INDEXING)) {
            rounds.start();
        }
    }

    private void round() {
        try {
            Set<String> due = upkeep.notAsWanted();
            due.removeAll(failed);
            long segments = upkeep.outdatedSegments();
            tell(due.size(), segments);
            if (due.isEmpty() && segments == 0) {
                return;
            }
            if (claims.take(Claims.Kind.RENEWAL, ALL)) {
                try {
                    renew(due, segments);
                } finally {
                    claims.release(Claims.Kind.RENEWAL, ALL);
                }
            }
        } catch (IOException | DataAccessException | TransactionException | CancellationException e) {
            LOG.info("Writing the index anew failed; it is tried again: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Writing the index anew failed; it is tried again", e);
        }
    }

    private void tell(int repositories, long segments) {
        boolean isDue = repositories + segments > 0;
        if (isDue && !told) {
            LOG.info(
                    "Writing anew what is of an earlier version, or of another group now: repositories {}, segments {}. It is searched meanwhile.",
                    repositories,
                    segments);
        } else if (!isDue && told) {
            LOG.info("All of the index is as it is wanted now");
        }
        told = isDue;
    }

    private void renew(Set<String> due, long segments) throws IOException {
        for (String name : due) {
            Optional<Repository> repository = catalogue.find(name).filter(known -> !known.isBusy());
            if (!mayGoOn()) {
                return;
            }
            long start = System.nanoTime();
            if (repository.isPresent() && !run.renew(repository.get().id())) {
                failed.add(name);
            }
            rest(start);
        }
        order.dropUnused();
        order.merge(() -> !mayGoOn());
        for (long left = segments; left > 0 && mayGoOn(); left--) {
            long start = System.nanoTime();
            order.renewOne();
            rest(start);
        }
    }

    private boolean mayGoOn() {
        return rounds.isRunning() && disk.problem().isEmpty() && !processes.isStruckOff();
    }

    /** Half of the time others have the processor and the disk for themselves. */
    private static void rest(long start) {
        try {
            Thread.sleep(Duration.ofNanos(System.nanoTime() - start));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt(); // it is stopped
        }
    }

    @Override
    public void stop() {
        rounds.stop();
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
