package dev.oddbeacon.server.rosters;

import dev.oddbeacon.api.RosterInfo;
import dev.oddbeacon.server.Settings;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Reads all rosters again and again. */
@Component
class RosterUpkeep implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(RosterUpkeep.class);

    private final Settings settings;
    private final Rosters rosters;
    private volatile boolean running;
    private Thread rounds = Thread.ofVirtual().unstarted(() -> {});

    RosterUpkeep(Settings settings, Rosters rosters) {
        this.settings = settings;
        this.rosters = rosters;
    }

    @Override
    public void start() {
        running = true;
        rounds = Thread.ofVirtual().name("rosters").start(this::rounds);
    }

    private void rounds() {
        try {
            while (running) {
                Thread.sleep(settings.following().rosters());
                if (settings.following().enabled()) {
                    readAll();
                }
            }
        } catch (InterruptedException e) {
            // the service stops
        }
    }

    private void readAll() {
        try {
            for (RosterInfo info : rosters.all()) {
                if (running) {
                    rosters.read(info.roster().name());
                }
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.info("Rosters are read later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Reading the rosters failed; it is tried again", e);
        }
    }

    @Override
    public void stop() {
        running = false;
        rounds.interrupt();
    }

    @Override
    public boolean isRunning() {
        return running;
    }
}
