package dev.oddbeacon.server.processes;

import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import java.time.Duration;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * Which of the machines of a cluster does what is to be done once: asking repositories and rosters whether they have
 * changed, looking at watched searches, sending messages, putting the store in order. It is a claim, so that another
 * takes it when its process has ended. Without a cluster, it is always this one.
 */
@Component
public class Charge implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Charge.class);
    private static final Duration ROUND = Duration.ofSeconds(1);
    private static final long ALL = 0; // what is claimed is of no repository

    private final ThisMachine machine;
    private final Processes processes;
    private final Claims claims;
    private final Rounds rounds = new Rounds("charge", ROUND, this::round);
    private volatile boolean isOurs;

    Charge(ThisMachine machine, Processes processes, Claims claims) {
        this.machine = machine;
        this.processes = processes;
        this.claims = claims;
    }

    /** Whether it is this one. */
    public boolean isOurs() {
        return !machine.isOfCluster() || isOurs && !processes.isStruckOff();
    }

    @Override
    public int getPhase() {
        return DEFAULT_PHASE - 2; // before whoever asks
    }

    @Override
    public void start() {
        if (machine.isOfCluster()) {
            round();
            rounds.start();
        }
    }

    private void round() {
        try {
            machine.look();
            boolean mayBe = processes.has(Duty.SERVING) && !processes.isStruckOff() && !machine.isRetired();
            if (!mayBe && isOurs) {
                isOurs = false;
                claims.release(Claims.Kind.CHARGE, ALL);
            } else if (mayBe) {
                boolean was = isOurs;
                isOurs = claims.take(Claims.Kind.CHARGE, ALL);
                if (isOurs && !was) {
                    LOG.info("This machine is in charge of what only one does");
                }
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("Who is in charge is found out later", e);
        }
    }

    @Override
    public void stop() {
        rounds.stop();
        if (isOurs) {
            isOurs = false;
            claims.release(Claims.Kind.CHARGE, ALL);
        }
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
