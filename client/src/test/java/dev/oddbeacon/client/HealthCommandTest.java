package dev.oddbeacon.client;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.Health;
import dev.oddbeacon.api.HealthReading;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class HealthCommandTest {
    private StandIn service;

    @BeforeEach
    void start() throws IOException {
        service = new StandIn();
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private static HealthReading reading(long searches, Double slow, long free) {
        return new HealthReading(
                Instant.parse("2026-04-01T06:00:00Z"),
                60,
                searches,
                0,
                slow == null ? null : slow / 4,
                slow,
                0,
                0,
                7,
                0,
                0,
                5,
                4_000_000,
                free,
                200_000_000,
                1_000_000_000,
                400_000_000,
                900,
                150,
                40);
    }

    private ClientRun run(Health.Finding... findings) {
        service.answers(
                "health",
                _ -> new Health(
                        Instant.parse("2026-04-01T05:00:00Z"),
                        List.of(findings),
                        List.of(),
                        List.of(
                                new Health.Worker(
                                        List.of("serving"),
                                        "lamp",
                                        4711,
                                        Instant.parse("2026-04-01T05:00:00Z"),
                                        300_000_000,
                                        1_000_000_000),
                                new Health.Worker(
                                        List.of("indexing"),
                                        "keel",
                                        12,
                                        Instant.parse("2026-04-01T05:30:00Z"),
                                        900_000_000,
                                        4_000_000_000L)),
                        reading(2, null, 90_000_000_000L),
                        List.of(reading(30, 12.0, 80_000_000_000L), reading(10, 48.0, 85_000_000_000L))));
        return ClientRun.of(service.url(), "health", "--over", "day");
    }

    @Test
    void ofAServiceThatIsWellSaysSoWithTheWorstOfEachFigure() {
        ClientRun run = run();
        assertThat(run.status()).isZero();
        assertThat(service.requests().getFirst().parameter("over")).isEqualTo("day");
        assertThat(run.out().lines())
                .startsWith("All is well.")
                .anyMatch(line -> line.matches("searches +2 +42"))
                .anyMatch(line -> line.matches("95 of 100 in +- +48.0 ms"))
                .anyMatch(line -> line.matches("disk free +90 GB +80 GB"))
                .anyMatch(line -> line.matches(" *12 +keel +2026-04-01T05:30:00Z +indexing +900 MB +4[.]0 GB"))
                .anyMatch(line -> line.matches("FIGURE +NOW +OVER THE DAY"));
    }

    @Test
    void endsWithFourIfSomebodyShouldAct() {
        ClientRun run = run(
                new Health.Finding("act", "disk", "Indexing pauses.", "Make room."),
                new Health.Finding("watch", "queue", "3 jobs wait.", "It passes."));
        assertThat(run.status()).isEqualTo(4);
        assertThat(run.out().lines())
                .startsWith("ACT    Indexing pauses.", "       Make room.", "watch  3 jobs wait.", "       It passes.");
    }

    @Test
    void endsWithZeroIfThereIsOnlySomethingToWatch() {
        assertThat(run(new Health.Finding("watch", "queue", "3 jobs wait.", "It passes."))
                        .status())
                .isZero();
    }

    @Test
    void refusesATimeThatIsNone() {
        assertThat(ClientRun.of(service.url(), "health", "--over", "week").status())
                .isEqualTo(2);
    }
}
