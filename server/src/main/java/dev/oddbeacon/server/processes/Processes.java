package dev.oddbeacon.server.processes;

import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.server.CannotStartException;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.records.ProcessRecords;
import dev.oddbeacon.server.records.ProcessRecords.ProcessRecord;
import jakarta.annotation.PostConstruct;
import jakarta.annotation.PreDestroy;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryUsage;
import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * The processes that work on this index, and that this is one of them. Each counts its beats in the records. One whose
 * count stands still, although the records were read several times, is struck off, and the others take its work over:
 * no clock is compared with another. A process that was struck off although it lives, as it stood still for long, can
 * record nothing; once all that it was doing has ended, it is one of them again, under a new number.
 */
@Component
public class Processes {
    private static final Logger LOG = LoggerFactory.getLogger(Processes.class);
    private static final Duration BETWEEN_BEATS = Duration.ofSeconds(1);
    private static final Duration LEASE = Duration.ofSeconds(10); // without a beat
    private static final int LEAST_LOOKS = 6; // within it
    private static final long MOST_NUMBERS = 1L << 48;
    private static final int ENDING = 4; // beats of one that is being stopped

    /** Something that has work to do when processes come and go. All of it is called on one thread. */
    public interface Watcher {
        /** Another process has ended, and what it did can be taken over. */
        default void ended() {}

        /** This one was struck off, and must end what it does. @return whether it has */
        default boolean isIdle() {
            return true;
        }

        /** This one was struck off, and is one of them again: others may have changed anything. */
        default void returned() {}

        /** This one has ended in order: it is none of them any more, and nobody here does anything. */
        default void left() {}
    }

    private record Seen(long beats, long since, int looks) {}

    private final ProcessRecords records;
    private final ThisMachine machine;
    private final Path index;
    private final Set<Duty> duties;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();
    private final List<Watcher> watchers = new CopyOnWriteArrayList<>();
    private final Map<Long, Seen> seen = new HashMap<>(); // by the thread of beats, or before it begins
    private final Rounds beats = new Rounds("beats", BETWEEN_BEATS, this::beat);
    private volatile List<ProcessRecord> all = List.of();
    private volatile long id;
    private volatile boolean isStruckOff;

    Processes(ProcessRecords records, ThisMachine machine, Settings settings, Clock clock) {
        this.machine = machine;
        this.records = records;
        this.index = settings.indexFolder();
        this.duties = Set.copyOf(settings.duties());
        this.clock = clock;
    }

    @PostConstruct
    void begin() {
        awaitTheOnlyOneThatServes();
        enter();
        look(); // this one is among them from the beginning
        beats.start();
    }

    /** Those of before that served have ended, or end now; one that goes on counting its beats does not. */
    private void awaitTheOnlyOneThatServes() {
        Map<Long, Long> first = new HashMap<>(); // beats
        while (duties.contains(Duty.SERVING)) {
            look();
            List<ProcessRecord> serving = all.stream().filter(this::isInTheWay).toList();
            if (serving.isEmpty()) {
                return;
            }
            for (ProcessRecord process : serving) {
                if (first.computeIfAbsent(process.id(), _ -> process.beats()) + ENDING < process.beats()) {
                    throw new CannotStartException("Process " + process.pid() + " on " + process.host()
                            + " serves these records already. Stop it, or start this one with --duty indexing.");
                }
            }
            try {
                Thread.sleep(BETWEEN_BEATS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new CannotStartException("interrupted");
            }
        }
    }

    /** Each machine of a cluster has one process that serves, and a cluster none that is of no machine. */
    private boolean isInTheWay(ProcessRecord process) {
        return has(process, Duty.SERVING) && (process.machine() == machine.number() || process.machine() == 0);
    }

    private void enter() {
        long drawn = random.nextLong(1, MOST_NUMBERS);
        records.add(
                drawn,
                machine.number(),
                duties.stream().sorted().map(Duty::word).collect(Collectors.joining(",")),
                ThisMachine.host(),
                ProcessHandle.current().pid(),
                clock.instant());
        id = drawn;
    }

    /** The number of this process. */
    public long id() {
        return id;
    }

    /** Whether this process has a duty. */
    public boolean has(Duty duty) {
        return duties.contains(duty);
    }

    /** Whether a process has a duty. */
    public static boolean has(ProcessRecord process, Duty duty) {
        return duties(process).contains(duty.word());
    }

    /** The duties of a process, in words. */
    public static List<String> duties(ProcessRecord process) {
        return Arrays.stream(Duty.values())
                .map(Duty::word)
                .filter(process.duties()::contains)
                .toList();
    }

    /** All that are known to work on this index, this one among them. */
    public List<ProcessRecord> all() {
        return all;
    }

    /** Numbers of the machines that have processes. */
    public Set<Long> machines() {
        return all.stream().map(ProcessRecord::machine).collect(Collectors.toSet());
    }

    /** How many index. */
    public long indexing() {
        return all.stream().filter(process -> has(process, Duty.INDEXING)).count();
    }

    /** Whether others index, or may be about to. */
    public boolean othersIndex() {
        return all.stream().anyMatch(process -> process.id() != id && has(process, Duty.INDEXING));
    }

    /** Whether there are others. */
    public boolean hasOthers() {
        return all.stream().anyMatch(process -> process.id() != id);
    }

    /** Whether this process must end what it does: others do it. */
    public boolean isStruckOff() {
        return isStruckOff;
    }

    /** Files that this process is about to write. */
    public NewFiles newFiles() {
        return new NewFiles(index, id);
    }

    /** Numbers of those that have not ended, as the records say now. */
    public Set<Long> living() {
        return records.all().stream().map(ProcessRecord::id).collect(Collectors.toCollection(TreeSet::new));
    }

    public void watch(Watcher watcher) {
        watchers.add(watcher);
    }

    private void beat() {
        try {
            MemoryUsage heap = ManagementFactory.getMemoryMXBean().getHeapMemoryUsage();
            if (!isStruckOff && !records.beat(id, heap.getUsed(), heap.getMax())) {
                LOG.warn("This process stood still, and others took over its work");
                isStruckOff = true;
            }
            if (isStruckOff && watchers.stream().allMatch(Watcher::isIdle)) {
                enter();
                isStruckOff = false;
                watchers.forEach(Watcher::returned);
            }
            if (look()) {
                watchers.forEach(Watcher::ended);
            }
        } catch (DataAccessException | TransactionException e) {
            seen.clear(); // others cannot tell that they live, either
        } catch (RuntimeException e) {
            LOG.warn("Looking after other processes failed", e);
        }
    }

    /** Looks at the others, and strikes off those that have ended. @return whether there were any */
    private boolean look() {
        long now = System.nanoTime();
        Set<Long> before = all.stream().map(ProcessRecord::id).collect(Collectors.toSet());
        for (ProcessRecord process : records.all()) {
            if (process.id() != id && hasEnded(process, now)) {
                LOG.info("Process {} on {} has ended; its work is taken over", process.pid(), process.host());
                records.remove(process.id(), process.beats());
            }
        }
        all = records.all();
        Set<Long> living = all.stream().map(ProcessRecord::id).collect(Collectors.toSet());
        seen.keySet().retainAll(living);
        before.removeAll(living);
        before.remove(id);
        return !before.isEmpty();
    }

    private boolean hasEnded(ProcessRecord process, long now) {
        if (process.host().equals(ThisMachine.host()) && !isHere(process)) {
            return true;
        }
        Seen earlier = seen.get(process.id());
        if (earlier == null || earlier.beats != process.beats()) {
            seen.put(process.id(), new Seen(process.beats(), now, 1));
            return false;
        }
        Seen again = new Seen(earlier.beats, earlier.since, earlier.looks + 1);
        seen.put(process.id(), again);
        return now - again.since > LEASE.toNanos() && again.looks >= LEAST_LOOKS;
    }

    private static boolean isHere(ProcessRecord process) {
        return ProcessHandle.of(process.pid()).filter(ProcessHandle::isAlive).isPresent();
    }

    /** Others need not wait to take over what this one has not done. */
    @PreDestroy
    void leave() {
        beats.stop();
        try {
            records.remove(id);
            if (watchers.stream().allMatch(Watcher::isIdle)) {
                watchers.forEach(Watcher::left);
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.info("Others find out by themselves that this process ends: {}", e.getMessage());
        }
    }
}
