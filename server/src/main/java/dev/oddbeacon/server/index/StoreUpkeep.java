package dev.oddbeacon.server.index;

import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.objects.ObjectStore;
import dev.oddbeacon.server.objects.ObjectStore.Stored;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.objects.StoreUnreachableException;
import dev.oddbeacon.server.processes.Charge;
import dev.oddbeacon.server.records.UnneededObjects;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * Keeps the store of objects in order: what the records name and only this machine has goes there, as when one machine
 * becomes several; what nothing names any more is deleted after a while, by the machine in charge. Cursors and searches
 * need no object, as each machine has its files on its own disk, and lets go of them itself.
 */
@Component
class StoreUpkeep implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(StoreUpkeep.class);
    private static final Duration ROUND = Duration.ofMinutes(1);

    private final SharedFiles shared;
    private final IndexUpkeep upkeep;
    private final Charge charge;
    private final UnneededObjects unneeded;
    private final Path folder;
    private final Duration grace;
    private volatile boolean isComplete; // all that is recorded and here was found in the store, or put there
    private final Rounds rounds = new Rounds("objects", ROUND, this::round);

    StoreUpkeep(SharedFiles shared, IndexUpkeep upkeep, Charge charge, UnneededObjects unneeded, Settings settings) {
        this.shared = shared;
        this.upkeep = upkeep;
        this.charge = charge;
        this.unneeded = unneeded;
        this.folder = settings.indexFolder();
        this.grace = settings.cluster().grace();
    }

    @Override
    public void start() {
        if (shared.store().isPresent()) {
            Thread.ofVirtual().name("objects-first").start(this::round);
            rounds.start();
        }
    }

    /** Does what is due. */
    void round() {
        try {
            ObjectStore store = shared.store().orElseThrow();
            if (!isComplete || shared.problem().isPresent()) {
                complete(store);
                isComplete = true;
                shared.asked(Optional.empty());
            }
            if (charge.isOurs()) {
                deleteUnneeded(store);
            }
        } catch (StoreUnreachableException e) {
            LOG.warn("The store of objects is put in order later: {}", e.getMessage());
        } catch (IOException e) {
            shared.asked(Optional.of("The objects cannot be reached: " + e.getMessage()));
            LOG.warn("The store of objects is put in order later: {}", e.getMessage());
        } catch (DataAccessException | TransactionException e) {
            LOG.info("The store of objects is put in order later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Putting the store of objects in order failed", e);
        }
    }

    private static Set<String> names(ObjectStore store) throws IOException {
        return store.list().stream().map(Stored::name).collect(Collectors.toSet());
    }

    private void complete(ObjectStore store) throws IOException {
        Set<String> missing = new TreeSet<>(upkeep.recordedNow());
        missing.removeAll(names(store));
        List<Path> here =
                missing.stream().map(folder::resolve).filter(Files::exists).toList();
        if (!here.isEmpty()) {
            LOG.info("{} files that only this machine has go to {}", here.size(), store.place());
            shared.keep(here);
        }
    }

    /**
     * What is in the store is read before what is recorded, so what is recorded meanwhile is not taken for unneeded. What
     * was put there and is not recorded yet has the time of grace for it, which is much longer than a process may stand
     * still.
     */
    private void deleteUnneeded(ObjectStore store) throws IOException {
        Set<String> there = names(store);
        Set<String> recorded = upkeep.recordedNow();
        Set<String> lapsed = new HashSet<>(there);
        lapsed.removeAll(recorded);
        lapsed.removeIf(name -> NewFiles.ownerOf(Path.of(name)).isEmpty()); // what is not ours stays
        Set<String> known = new HashSet<>(unneeded.all());
        unneeded.remove(known.stream().filter(name -> !lapsed.contains(name)).toList());
        unneeded.add(lapsed.stream().filter(name -> !known.contains(name)).toList());
        List<String> due =
                unneeded.allFor(grace).stream().filter(lapsed::contains).toList();
        for (String name : due) {
            store.delete(name);
        }
        unneeded.remove(due);
        if (!due.isEmpty()) {
            LOG.info("Deleted {} objects that nothing names any more", due.size());
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
