package dev.oddbeacon.server.index;

import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.processes.Claims;
import dev.oddbeacon.server.processes.Processes;
import java.io.IOException;
import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * Writes segments anew, one at a time, that an earlier version of the analysis wrote, while they are searched. One
 * process does it.
 */
@Component
class Renewal implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Renewal.class);
    private static final Duration REST = Duration.ofSeconds(1);
    private static final long ALL = 0; // the claim is of no single repository

    private final Processes processes;
    private final Claims claims;
    private final Disk disk;
    private final IndexUpkeep upkeep;
    private final SegmentOrder order;
    private final Rounds rounds = new Rounds("renewal", REST, this::round);
    private long told; // how many there were

    Renewal(Processes processes, Claims claims, Disk disk, IndexUpkeep upkeep, SegmentOrder order) {
        this.processes = processes;
        this.claims = claims;
        this.disk = disk;
        this.upkeep = upkeep;
        this.order = order;
    }

    @Override
    public void start() {
        if (processes.has(Duty.INDEXING)) {
            rounds.start();
        }
    }

    private void round() {
        long left = upkeep.outdatedSegments();
        if (left > told) {
            LOG.info(
                    "{} segments were written by an earlier version; they are written anew while they are searched",
                    left);
        } else if (left == 0 && told > 0) {
            LOG.info("All segments are written by this version now");
        }
        told = left;
        if (left == 0 || disk.problem().isPresent() || processes.isStruckOff()) {
            return;
        }
        try {
            if (claims.take(Claims.Kind.RENEWAL, ALL)) {
                try {
                    order.renewOne();
                } finally {
                    claims.release(Claims.Kind.RENEWAL, ALL);
                }
            }
        } catch (IOException | DataAccessException | TransactionException e) {
            LOG.info("Writing a segment anew failed; it is tried again: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Writing a segment anew failed; it is tried again", e);
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
