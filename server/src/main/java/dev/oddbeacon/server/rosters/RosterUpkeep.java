package dev.oddbeacon.server.rosters;

import dev.oddbeacon.api.RosterInfo;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.processes.Charge;
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

    private final Charge charge;
    private final Settings settings;
    private final Rosters rosters;
    private final Rounds rounds;

    RosterUpkeep(Settings settings, Rosters rosters, Charge charge) {
        this.charge = charge;
        this.settings = settings;
        this.rosters = rosters;
        this.rounds = new Rounds("rosters", settings.following().rosters(), this::readAll);
    }

    @Override
    public void start() {
        rounds.start();
    }

    private void readAll() {
        if (!settings.following().enabled() || !charge.isOurs()) {
            return;
        }
        try {
            for (RosterInfo info : rosters.all()) {
                if (rounds.isRunning()) {
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
        rounds.stop();
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
