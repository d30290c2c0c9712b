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
    private static final Duration FIRST_PAUSE = Duration.ofSeconds(3);
    private static final int MOST_DOUBLINGS = 7; // some 6 min

    private final LocalMirrors mirrors;
    private final IndexRun run;
    private final HistoryJobs history;
    private final Catalogue catalogue;
    private final ThisMachine machine;
    private final Map<Long, Tried> tried = new HashMap<>(); // by repository; of the thread of rounds
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

    /**
     * What was tried in vain: the origin does not answer, or somebody else is at work on it.
     *
     * @param want that was not met
     * @param at nanoseconds
     * @param times since it was wanted last
     */
    private record Tried(LocalMirrors.Want want, long at, int times) {
        boolean isDue(LocalMirrors.Want now) {
            return !now.equals(want)
                    || System.nanoTime() - at > FIRST_PAUSE.toNanos() << Math.min(times - 1, MOST_DOUBLINGS);
        }
    }

    private void round() {
        tried.keySet().retainAll(mirrors.wanted().keySet());
        for (Map.Entry<Long, LocalMirrors.Want> wanted : mirrors.wanted().entrySet()) {
            long repository = wanted.getKey();
            LocalMirrors.Want want = wanted.getValue();
            Tried before = tried.get(repository);
            if (!rounds.isRunning() || before != null && !before.isDue(want)) {
                continue;
            }
            boolean isAgain = before != null && before.want.equals(want);
            tried.put(repository, new Tried(want, System.nanoTime(), isAgain ? before.times + 1 : 1));
            try {
                if (run.catchUp(repository, want.anew()) && mirrors.wanted().remove(repository, want)) {
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
