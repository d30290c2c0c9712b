package dev.oddbeacon.server.following;

import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.Credential;
import dev.oddbeacon.git.Mirror;
import dev.oddbeacon.git.MovedException;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Activity;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Checked;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.processes.Charge;
import dev.oddbeacon.server.records.CheckRecords;
import dev.oddbeacon.server.records.CheckRecords.CheckRecord;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * Asks repositories whether they have changed, each when it is due, and queues those that have. The ones that change
 * often come first when more are due than can be asked.
 */
@Component
class Checks implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Checks.class);
    private static final int AT_A_TIME = 4;
    private static final Duration ROUND = Duration.ofMillis(500);
    private static final Duration BETWEEN_SAVES = Duration.ofSeconds(10);

    private final Settings settings;
    private final Credential.Store credentials;
    private final Catalogue catalogue;
    private final Activity activity;
    private final IndexJobs jobs;
    private final CheckRecords records;
    private final Charge charge;
    private final Clock clock;
    private final Semaphore free = new Semaphore(AT_A_TIME);
    private final Set<Long> atWork = ConcurrentHashMap.newKeySet();
    private final Map<Long, Checked> saved = new HashMap<>(); // by the thread of rounds, or before it begins
    private boolean wasOurs; // in the round before
    private long savedAt = System.nanoTime();
    private final Rounds rounds = new Rounds("checks", ROUND, this::round);

    Checks(
            Settings settings,
            Credential.Store credentials,
            Catalogue catalogue,
            Activity activity,
            IndexJobs jobs,
            CheckRecords records,
            Charge charge,
            Clock clock) {
        this.charge = charge;
        this.settings = settings;
        this.credentials = credentials;
        this.catalogue = catalogue;
        this.activity = activity;
        this.jobs = jobs;
        this.records = records;
        this.clock = clock;
    }

    @Override
    public int getPhase() {
        return DEFAULT_PHASE - 1; // before jobs begin, whose results add to what is known
    }

    @Override
    public void start() {
        load();
        wasOurs = charge.isOurs();
        rounds.start();
    }

    private void load() {
        for (CheckRecord record : records.all()) {
            saved.put(record.repository(), check(record));
        }
        activity.load(saved);
    }

    private static Checked check(CheckRecord record) {
        return new Checked(
                record.tried(),
                record.answered(),
                record.changed(),
                record.refs(),
                record.failures(),
                false,
                Checked.Behind.NOT,
                record.problem());
    }

    private void round() {
        boolean isOurs = charge.isOurs();
        if (isOurs && wasOurs && settings.following().enabled()) {
            due().forEach(this::begin);
        }
        if (isOurs != wasOurs || System.nanoTime() - savedAt > BETWEEN_SAVES.toNanos()) {
            if (isOurs && wasOurs) {
                save();
            } else {
                follow();
            }
            wasOurs = isOurs;
        }
    }

    /** What the machine in charge has found out. */
    private void follow() {
        savedAt = System.nanoTime();
        try {
            load();
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("What is known of repositories is read later", e);
        }
    }

    /** Those to be asked in this round, the ones that change often first. */
    private List<Repository> due() {
        Instant now = clock.instant();
        record Due(Repository repository, Instant changed) {}
        List<Due> due = new ArrayList<>();
        for (Repository repository : catalogue.all()) {
            if (!repository.isBusy() && !atWork.contains(repository.id())) {
                Checked check = activity.checkOrNever(repository.id());
                boolean wasAskedLater = check.tried().isAfter(now); // by a clock that has been put back since
                if (wasAskedLater || !next(repository, check).isAfter(now)) {
                    due.add(new Due(repository, check.changed()));
                }
            }
        }
        long most = Math.max(1, settings.following().aSecond() * ROUND.toMillis() / 1_000);
        return due.stream()
                .sorted(Comparator.comparing(Due::changed).reversed())
                .limit(most)
                .map(Due::repository)
                .toList();
    }

    private Instant next(Repository repository, Checked check) {
        double spread = (Math.floorMod(Objects.hash(repository.id(), 31), 2_001) - 1_000) / 1_000.0;
        return check.next(settings.following().shortest(), settings.following().longest(), spread);
    }

    private void begin(Repository repository) {
        if (free.tryAcquire()) { // else in a later round
            atWork.add(repository.id());
            Thread.ofVirtual().name("check-" + repository.id()).start(() -> {
                try {
                    ask(repository);
                } finally {
                    atWork.remove(repository.id());
                    free.release();
                }
            });
        }
    }

    private void ask(Repository repository) {
        long id = repository.id();
        boolean wasSilent = activity.checkOrNever(id).problem().isPresent();
        try {
            Mirror mirror = new Mirror(settings.mirror(id), repository.location(), settings.transport(credentials));
            String refs = mirror.listed(() -> !rounds.isRunning()).digest();
            boolean isAsFetched = activity.listed(id, refs);
            if (!isAsFetched) {
                jobs.refresh(id);
            } else if (wasSilent) {
                catalogue.checked(repository);
            }
        } catch (MovedException e) {
            jobs.refresh(id); // which follows it
        } catch (RepositoryProblemException e) {
            activity.silent(id, e.getMessage());
            if (!wasSilent) {
                catalogue.checked(repository);
            }
        } catch (CancellationException e) {
            // the service stops
        } catch (DataAccessException | TransactionException e) {
            LOG.info(
                    "{} has changed and cannot be queued now; it is asked again: {}",
                    repository.name(),
                    e.getMessage());
            activity.silent(id, "The records of the service cannot be reached.");
        } catch (RuntimeException e) {
            LOG.warn("Asking {} whether it has changed failed", Visible.escaped(repository.name()), e);
            activity.silent(id, "Asking it failed unexpectedly. The log of the service tells more.");
        }
    }

    /** Records what is new, so that a start need not ask all at once. */
    private void save() {
        Map<Long, Checked> fresh = new HashMap<>();
        for (Repository repository : catalogue.all()) {
            activity.check(repository.id())
                    .filter(check -> !check.equals(saved.get(repository.id())))
                    .ifPresent(check -> fresh.put(repository.id(), check));
        }
        savedAt = System.nanoTime();
        if (fresh.isEmpty()) {
            return;
        }
        try {
            records.save(fresh.entrySet().stream()
                    .map(entry -> record(entry.getKey(), entry.getValue()))
                    .toList());
            saved.putAll(fresh);
        } catch (DataAccessException | TransactionException e) {
            LOG.info("What is known of repositories is recorded later: {}", e.getMessage());
        }
    }

    private static CheckRecord record(long repository, Checked check) {
        return new CheckRecord(
                repository,
                check.tried(),
                check.answered(),
                check.changed(),
                check.refs(),
                check.failures(),
                check.problem());
    }

    @Override
    public void stop() {
        rounds.stop();
        if (wasOurs) {
            save();
        }
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
