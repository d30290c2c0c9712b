package dev.oddbeacon.server.health;

import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.processes.Charge;
import dev.oddbeacon.server.records.HealthRecords;
import dev.oddbeacon.server.records.HealthRecords.HealthRecord;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/**
 * Readings of the last 30 days: one a minute of the last day, one a quarter of an hour of the time before. While MariaDB
 * does not answer they wait in memory, those of a day at most.
 *
 * <p>Concurrency: one thread takes them; {@code unsaved} and {@code before} are guarded by this.
 */
@Component
class HealthHistory implements SmartLifecycle {
    static final Duration KEPT = Duration.ofDays(30);
    static final Duration BY_MINUTE = Duration.ofDays(1);
    private static final Logger LOG = LoggerFactory.getLogger(HealthHistory.class);
    private static final Duration EACH = Duration.ofMinutes(1);
    private static final long QUARTER_SECONDS = 900;
    private static final int MOST_UNSAVED = 1_440;

    private final Charge charge;
    private final Readings readings;
    private final HealthRecords records;
    private final TransactionTemplate transaction;
    private final JsonMapper json;
    private final Clock clock;
    private final Deque<Reading> unsaved = new ArrayDeque<>();
    private Readings.Counted before;
    private Instant thinned = Instant.EPOCH; // by the thread that takes readings
    private final Rounds rounds = new Rounds("health", EACH, this::round);

    HealthHistory(
            Readings readings,
            HealthRecords records,
            TransactionTemplate transaction,
            JsonMapper json,
            Clock clock,
            Charge charge) {
        this.charge = charge;
        this.readings = readings;
        this.records = records;
        this.transaction = transaction;
        this.json = json;
        this.clock = clock;
        this.before = readings.count();
    }

    @Override
    public void start() {
        rounds.start();
    }

    private void round() {
        take();
        if (charge.isOurs() && Duration.between(thinned, clock.instant()).abs().toSeconds() >= QUARTER_SECONDS) {
            thin();
        }
    }

    /** What it is like now; the next reading that is kept begins where the last one that was kept ended. */
    synchronized Reading now() {
        return readings.between(before, readings.count());
    }

    /** Takes a reading and keeps it. */
    void take() {
        try {
            synchronized (this) {
                Readings.Counted now = readings.count();
                unsaved.addLast(readings.between(before, now));
                before = now;
                if (unsaved.size() > MOST_UNSAVED) {
                    unsaved.removeFirst();
                }
            }
            if (charge.isOurs()) {
                save();
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("Readings are recorded later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Taking a reading of the service failed", e);
        }
    }

    private void save() {
        List<Reading> due;
        synchronized (this) {
            due = List.copyOf(unsaved);
        }
        records.save(due.stream().map(this::record).toList());
        synchronized (this) {
            unsaved.removeAll(due);
        }
    }

    private HealthRecord record(Reading reading) {
        return new HealthRecord(reading.at(), reading.seconds(), json.writeValueAsString(reading));
    }

    private Reading reading(HealthRecord record) {
        return json.readValue(record.figures(), Reading.class);
    }

    /** Makes one reading a quarter of an hour of those that are older than a day, and forgets those older than a month. */
    void thin() {
        Instant now = clock.instant();
        thinned = now;
        try {
            Instant end = quarter(now.minus(BY_MINUTE));
            transaction.executeWithoutResult(_ -> {
                records.deleteUpTo(now.minus(KEPT));
                List<HealthRecord> old = records.between(now.minus(KEPT), end);
                Map<Instant, List<HealthRecord>> byQuarter = new LinkedHashMap<>();
                old.forEach(record -> byQuarter
                        .computeIfAbsent(quarter(record.taken().minusMillis(1)), _ -> new ArrayList<>())
                        .add(record));
                byQuarter.forEach((start, several) -> {
                    if (several.size() > 1) {
                        records.deleteBetween(start, start.plusSeconds(QUARTER_SECONDS));
                        records.save(List.of(record(several.stream()
                                .map(this::reading)
                                .reduce(Reading::and)
                                .orElseThrow())));
                    }
                });
            });
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("Readings are thinned out later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Thinning out the readings of the service failed", e);
        }
    }

    private static Instant quarter(Instant time) {
        return Instant.ofEpochSecond(Math.floorDiv(time.getEpochSecond(), QUARTER_SECONDS) * QUARTER_SECONDS);
    }

    /**
     * Readings of the last while, the oldest first, several as one where there are many.
     *
     * @param each what one of them is about, at least
     */
    List<Reading> last(Duration time, Duration each) {
        Instant now = clock.instant();
        Map<Instant, Reading> all = new TreeMap<>(); // one that is just being recorded is found twice
        records.between(now.minus(time), now).stream()
                .map(this::reading)
                .forEach(reading -> all.put(reading.at(), reading));
        synchronized (this) {
            unsaved.forEach(reading -> all.put(reading.at(), reading));
        }
        Map<Long, Reading> joined = new LinkedHashMap<>();
        all.values()
                .forEach(reading -> joined.merge(
                        Math.floorDiv(reading.at().getEpochSecond() - 1, Math.max(1, each.toSeconds())),
                        reading,
                        Reading::and));
        return List.copyOf(joined.values());
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
