package dev.oddbeacon.server.index;

import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.processes.ThisMachine;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Fetches to this machine what others have indexed, so that it tells the past of all repositories by itself. */
@Component
class MirrorUpkeep implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(MirrorUpkeep.class);
    private static final Duration ROUND = Duration.ofMillis(500);
    private static final long BETWEEN_TRIES = Duration.ofSeconds(5).toNanos();

    private final LocalMirrors mirrors;
    private final IndexRun run;
    private final HistoryJobs history;
    private final Catalogue catalogue;
    private final ThisMachine machine;
    private final Map<Long, Long> tried = new HashMap<>(); // nanoseconds, by repository; of the thread of rounds
    private final Rounds rounds = new Rounds("mirrors", ROUND, this::round);

    MirrorUpkeep(LocalMirrors mirrors, IndexRun run, HistoryJobs history, Catalogue catalogue, ThisMachine machine) {
        this.mirrors = mirrors;
        this.run = run;
        this.history = history;
        this.catalogue = catalogue;
        this.machine = machine;
    }

    @Override
    public void start() {
        if (machine.isOfCluster()) {
            catalogue.all().forEach(repository -> mirrors.want(repository.id()));
            rounds.start();
        }
    }

    private void round() {
        tried.keySet().retainAll(mirrors.wanted().keySet());
        for (Map.Entry<Long, Boolean> wanted : mirrors.wanted().entrySet()) {
            long now = System.nanoTime();
            Long last = tried.get(wanted.getKey());
            if (!rounds.isRunning() || last != null && now - last < BETWEEN_TRIES) {
                continue;
            }
            tried.put(wanted.getKey(), now);
            try {
                if (run.catchUp(wanted.getKey(), wanted.getValue())
                        && mirrors.wanted().remove(wanted.getKey(), wanted.getValue())) {
                    history.requestMissing();
                }
            } catch (DataAccessException | TransactionException e) {
                LOG.info("A mirror is brought up to date later: {}", e.getMessage());
            } catch (RuntimeException e) {
                LOG.warn("Bringing a mirror up to date failed", e);
            }
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
