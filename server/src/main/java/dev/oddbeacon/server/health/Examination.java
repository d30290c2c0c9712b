package dev.oddbeacon.server.health;

import dev.oddbeacon.api.Health;
import dev.oddbeacon.api.Health.Failure;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.index.Disk;
import dev.oddbeacon.server.machines.MachineList;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import dev.oddbeacon.server.rosters.Rosters;
import java.io.IOException;
import java.io.InputStream;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.cert.CertificateException;
import java.security.cert.CertificateFactory;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.function.Supplier;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Gathers what the findings are worked out from. */
@Component
class Examination {
    private static final Duration LATELY = Duration.ofMinutes(15);
    private static final int NAMED = 100;

    private final Settings settings;
    private final HealthHistory history;
    private final Readings readings;
    private final Catalogue catalogue;
    private final Rosters rosters;
    private final Disk disk;
    private final Restarts restarts;
    private final RecordsReached records;
    private final Processes processes;
    private final SharedFiles shared;
    private final MachineList machines;

    Examination(
            Settings settings,
            HealthHistory history,
            Readings readings,
            Catalogue catalogue,
            Rosters rosters,
            Disk disk,
            Restarts restarts,
            RecordsReached records,
            Processes processes,
            SharedFiles shared,
            MachineList machines) {
        this.settings = settings;
        this.history = history;
        this.readings = readings;
        this.catalogue = catalogue;
        this.rosters = rosters;
        this.disk = disk;
        this.restarts = restarts;
        this.records = records;
        this.processes = processes;
        this.shared = shared;
        this.machines = machines;
    }

    /** @param time back from now @param each what one reading is about, at least */
    Health over(Duration time, Duration each) {
        boolean canReachRecords = records.areReached();
        Reading now = history.now();
        List<Reading> past = canReachRecords ? history.last(time, each) : List.of();
        List<Reading> lately =
                new ArrayList<>(canReachRecords ? history.last(LATELY, Duration.ofMinutes(1)) : List.of());
        lately.add(now);
        List<Failure> failures = failures();
        return new Health(
                Instant.ofEpochMilli(ManagementFactory.getRuntimeMXBean().getStartTime()),
                Findings.of(new Findings.Known(
                        now,
                        lately,
                        canReachRecords,
                        processes.indexing() > 0,
                        disk.problem(),
                        settings.freeDisk().toBytes(),
                        restarts.lastEnd(),
                        failures,
                        longer(now.at(), readings::behindSince, Findings.longBehind()),
                        longer(now.at(), readings::silentSince, Findings.longSilent()),
                        ifRead(this::brokenRosters),
                        shared.problem(),
                        ifRead(machines::gone),
                        ifRead(machines::unreached),
                        settings.following().enabled(),
                        ThisProcess.mostMappings(),
                        ThisProcess.mostHandles(),
                        certificateEnds())),
                failures,
                processes.all().stream()
                        .map(process -> new Health.Worker(
                                Processes.duties(process),
                                process.host(),
                                process.pid(),
                                process.begun(),
                                process.heapUsed(),
                                process.heapLimit()))
                        .toList(),
                now.onTheWire(),
                past.stream().map(Reading::onTheWire).toList());
    }

    /** The same reason of two repositories differs in their locations at most. */
    private List<Failure> failures() {
        Map<String, List<String>> byReason = new TreeMap<>();
        for (Repository repository : catalogue.all()) {
            if (repository.state() == State.FAILED) {
                String reason = repository
                        .problem()
                        .orElse("The log of the service tells more.")
                        .replace(repository.location(), "…");
                byReason.computeIfAbsent(reason, _ -> new ArrayList<>()).add(repository.name());
            }
        }
        return byReason.entrySet().stream()
                .map(entry -> new Failure(
                        entry.getKey(),
                        entry.getValue().size(),
                        entry.getValue().stream().limit(NAMED).toList()))
                .sorted(Comparator.comparingInt(Failure::count).reversed())
                .toList();
    }

    /** Names of repositories of which something has held for longer; those that fail are told of anyway. */
    private List<String> longer(Instant now, Function<Repository, Optional<Instant>> since, Duration time) {
        return catalogue.all().stream()
                .filter(repository -> repository.state() != State.FAILED)
                .filter(repository -> since.apply(repository)
                        .filter(begin -> Duration.between(begin, now).compareTo(time) > 0)
                        .isPresent())
                .map(Repository::name)
                .toList();
    }

    private static <T> List<T> ifRead(Supplier<List<T>> records) {
        try {
            return records.get();
        } catch (DataAccessException | TransactionException e) {
            return List.of();
        }
    }

    private List<String> brokenRosters() {
        return rosters.all().stream()
                .filter(roster -> roster.problem() != null)
                .map(roster -> "The roster " + roster.roster().name() + ": " + roster.problem())
                .toList();
    }

    private Optional<Instant> certificateEnds() {
        if (settings.tls().certificate().isEmpty()) {
            return Optional.empty();
        }
        try (InputStream in = Files.newInputStream(Path.of(settings.tls().certificate()))) {
            return Optional.of(
                    ((X509Certificate) CertificateFactory.getInstance("X.509").generateCertificate(in))
                            .getNotAfter()
                            .toInstant());
        } catch (IOException | CertificateException e) {
            return Optional.empty(); // the log tells why a new one could not be taken
        }
    }
}
