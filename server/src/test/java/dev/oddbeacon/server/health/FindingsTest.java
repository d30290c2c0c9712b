package dev.oddbeacon.server.health;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.Health.Failure;
import dev.oddbeacon.api.Health.Finding;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class FindingsTest {
    private static final Instant NOW = Instant.parse("2026-04-01T06:00:00Z");
    private static final long GIBIBYTE = 1L << 30;

    /** A service of which all is well, but for what a test says. */
    private static final class Service {
        private long free = 100 * GIBIBYTE;
        private long heap = GIBIBYTE / 4;
        private int mappings = 3_000;
        private int handles = 200;
        private int waiting;
        private long oldestSeconds;
        private Times times = Times.NONE;
        private long failedSearches;
        private boolean records = true;
        private boolean somebodyIndexes = true;
        private Optional<String> pauses = Optional.empty();
        private List<Failure> failures = List.of();
        private List<String> behind = List.of();
        private List<String> silent = List.of();
        private List<String> rosters = List.of();
        private Optional<String> storeProblem = Optional.empty();
        private List<String> gone = List.of();
        private List<String> unreached = List.of();
        private boolean follows = true;
        private Optional<Instant> certificateEnds = Optional.of(NOW.plus(Duration.ofDays(60)));
        private Optional<String> lastEnd = Optional.empty();

        private List<Finding> findings() {
            Reading now = new Reading(
                    NOW,
                    60,
                    times,
                    failedSearches,
                    waiting,
                    oldestSeconds,
                    7,
                    0,
                    0,
                    5,
                    GIBIBYTE,
                    free,
                    heap,
                    GIBIBYTE,
                    new Reading.OfProcess(GIBIBYTE, mappings, handles, 40));
            return Findings.of(new Findings.Known(
                    now,
                    List.of(now),
                    records,
                    somebodyIndexes,
                    pauses,
                    GIBIBYTE / 2,
                    lastEnd,
                    failures,
                    behind,
                    silent,
                    rosters,
                    storeProblem,
                    gone,
                    unreached,
                    follows,
                    Optional.of(65_530L),
                    Optional.of(1_024L),
                    certificateEnds));
        }

        private List<String> told() {
            return findings().stream()
                    .map(finding -> finding.level() + " " + finding.about())
                    .toList();
        }
    }

    private final Service service = new Service();

    @Test
    void nothingIsToldOfAServiceThatIsWell() {
        assertThat(service.findings()).isEmpty();
    }

    @Test
    void everyFindingSaysWhatToDo() {
        service.records = false;
        service.free = GIBIBYTE / 4;
        service.heap = GIBIBYTE;
        service.mappings = 60_000;
        service.handles = 1_000;
        service.failedSearches = 2;
        service.storeProblem = Optional.of("The objects in s3://ferries/index cannot be reached: connection refused");
        service.gone = List.of("pier-3");
        service.unreached = List.of("pier-2 at 10.0.0.2:7441");
        service.rosters = List.of("The roster fleet: The folder /srv/git cannot be read.");
        service.follows = false;
        service.certificateEnds = Optional.of(NOW.minusSeconds(60));
        service.lastEnd = Optional.of("The service ended by itself.");
        service.waiting = 9;
        service.oldestSeconds = 3_600;
        service.behind = List.of("tidal-planner");
        service.silent = List.of("berth-planner");
        assertThat(service.told())
                .containsExactly(
                        "act records",
                        "act store",
                        "act machines",
                        "act machines",
                        "act searches",
                        "act rosters",
                        "act memory",
                        "act mappings",
                        "act handles",
                        "act certificate",
                        "watch disk",
                        "watch behind",
                        "watch silent",
                        "watch following",
                        "watch queue",
                        "watch restarts");
        assertThat(service.findings())
                .allSatisfy(finding -> assertThat(finding.advice()).isNotBlank());
    }

    @Test
    void thatNobodyIndexesIsForSomebodyToActOn() {
        service.somebodyIndexes = false;
        assertThat(service.told()).containsExactly("act indexing");
        assertThat(service.findings().getFirst().advice()).contains("--duty indexing");
    }

    @Test
    void indexingThatPausesIsForSomebodyToActOn() {
        service.free = GIBIBYTE / 4;
        service.pauses = Optional.of("Indexing pauses: only 256 MiB are free.");
        service.waiting = 3;
        service.oldestSeconds = 7_200;
        assertThat(service.told()).as("that jobs wait follows from it").containsExactly("act disk");
    }

    @Test
    void failuresAreNamedByReasonWithTheFirstOfTheirRepositories() {
        service.failures =
                List.of(new Failure("… cannot be fetched from.", 7, List.of("a", "b", "c", "d", "e", "f", "g")));
        Finding finding = service.findings().getFirst();
        assertThat(finding.what()).isEqualTo("7 repositories cannot be brought up to date: … cannot be fetched from.");
        assertThat(finding.advice()).startsWith("a, b, c, d, e and 2 more.");
    }

    @Test
    void aFewSlowSearchesSayNothing() {
        long[] counts = new long[Times.NONE.counts().length];
        counts[counts.length - 2] = 19;
        service.times = new Times(counts.clone());
        assertThat(service.told()).isEmpty();
        counts[counts.length - 2] = 20;
        service.times = new Times(counts.clone());
        assertThat(service.told()).containsExactly("watch searches");
    }

    @Test
    void aCertificateThatEndsSoonIsToldInDays() {
        service.certificateEnds = Optional.of(NOW.plus(Duration.ofDays(13)));
        assertThat(service.findings().getFirst().what()).startsWith("The certificate ends in 13 days");
    }
}
