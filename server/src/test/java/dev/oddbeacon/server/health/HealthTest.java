package dev.oddbeacon.server.health;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.LoggerContextVO;
import ch.qos.logback.classic.spi.LoggingEvent;
import ch.qos.logback.classic.spi.ThrowableProxy;
import ch.qos.logback.core.read.ListAppender;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.JsonLogLines;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.records.HealthRecords;
import dev.oddbeacon.server.records.HealthRecords.HealthRecord;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.slf4j.LoggerFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class HealthTest {
    @TempDir
    private static Path folder;

    private static TestService service;

    @BeforeAll
    static void start() throws Exception {
        service = TestService.start(
                Database.shared().create(),
                folder.resolve("data"),
                "--oddbeacon.following.enabled=true",
                "--oddbeacon.log.slow=1ns");
        TestRepository repository = TestRepository.create(folder.resolve("pier"));
        repository.write("bells.txt", "ring twice\n");
        repository.commit("One");
        service.add("pier", repository.path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static HttpResponse<String> get(String path, String... headers) throws Exception {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(service.address() + path));
        if (headers.length > 0) {
            request.headers(headers);
        }
        return HttpClient.newHttpClient().send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void searchesAreCountedAndTimed() {
        service.bean(HealthHistory.class).take();
        for (int i = 0; i < 3; i++) {
            service.get("/api/v1/search/lines", "q", "ring");
        }
        service.get("/api/v1/search/lines", "q", "(", "reading", "regex");
        JsonNode now = service.get("/api/v1/health").json().path("now");
        assertThat(now.path("searches").asInt())
                .as("a mistake of the caller is none")
                .isEqualTo(3);
        assertThat(now.path("slowMillis").asDouble()).isPositive();
        assertThat(now.path("repositories").asInt()).isEqualTo(1);
        assertThat(now.path("indexBytes").asLong()).isPositive();
        assertThat(now.path("mappings").asInt()).isPositive();
        assertThat(now.path("handles").asInt()).isPositive();
        assertThat(now.path("residentBytes").asLong()).isPositive();
    }

    @Test
    void aRepositoryThatCannotBeFetchedIsToldWithItsReasonAndHowToGoOn() {
        service.post(
                "/api/v1/repositories",
                "application/json",
                "{\"name\":\"lost\",\"location\":\"" + folder.resolve("nowhere") + "\"}");
        Waiting.until(() -> service.get("/api/v1/repositories/lost")
                .json()
                .path("state")
                .asString()
                .equals("failed"));
        try {
            JsonNode health = service.get("/api/v1/health").json();
            JsonNode failure = health.path("failures").path(0);
            assertThat(failure.path("count").asInt()).isEqualTo(1);
            assertThat(failure.path("reason").asString()).startsWith("… ");
            assertThat(failure.path("repositories").path(0).asString()).isEqualTo("lost");
            assertThat(health.path("findings").path(0).path("about").asString()).isEqualTo("failing");
        } finally {
            service.delete("/api/v1/repositories/lost");
        }
        assertThat(service.get("/api/v1/health").json().path("findings")).isEmpty();
    }

    @Test
    void readingsAreKeptByMinuteForADayAndByQuarterOfAnHourForAMonth() {
        HealthHistory history = service.bean(HealthHistory.class);
        HealthRecords records = service.bean(HealthRecords.class);
        JsonMapper json = service.bean(JsonMapper.class);
        Instant end = Instant.ofEpochSecond(Instant.now().getEpochSecond() / 900 * 900);
        List<HealthRecord> made = new ArrayList<>();
        List<Instant> old = new ArrayList<>();
        for (int minute = 0; minute < 60; minute++) {
            old.add(end.minus(Duration.ofDays(2)).plusSeconds(60L * (minute + 1)));
        }
        old.add(end.minus(Duration.ofDays(31)));
        old.add(end.minus(Duration.ofHours(2)));
        old.add(end.minus(Duration.ofHours(2)).plusSeconds(60));
        for (Instant at : old) {
            long[] counts = new long[Times.NONE.counts().length];
            counts[3] = 2;
            Reading reading = new Reading(
                    at,
                    60,
                    new Times(counts),
                    0,
                    1,
                    5,
                    1,
                    0,
                    0,
                    1,
                    100,
                    1_000,
                    10,
                    20,
                    new Reading.OfProcess(1, 2, 3, 4));
            made.add(new HealthRecord(at, 60, json.writeValueAsString(reading)));
        }
        records.save(made);
        history.thin();
        history.thin();
        assertThat(records.between(end.minus(Duration.ofDays(40)), end.minus(Duration.ofDays(1))))
                .as("four quarters of an hour")
                .hasSize(4)
                .allSatisfy(record -> assertThat(record.seconds()).isEqualTo(900));
        assertThat(records.between(end.minus(Duration.ofHours(3)), end.minus(Duration.ofHours(1))))
                .hasSize(2);
        assertThat(records.between(end.minus(Duration.ofDays(40)), end.minus(Duration.ofHours(1))).stream()
                        .map(record -> json.readValue(record.figures(), Reading.class))
                        .mapToLong(reading -> reading.times().total())
                        .sum())
                .as("no search is lost")
                .isEqualTo(2L * (60 + 2));
        JsonNode month = service.get("/api/v1/health", "over", "month").json().path("past");
        assertThat(Instant.parse(month.path(0).path("at").asString())).isBefore(end.minus(Duration.ofDays(1)));
    }

    @Test
    void aTimeThatIsNoneIsRefused() {
        Answer answer = service.get("/api/v1/health", "over", "week");
        assertThat(answer.status()).isEqualTo(400);
        assertThat(answer.detail()).contains("hour, day or month");
    }

    @Test
    void theMetricsAreOpenMetrics() throws Exception {
        service.get("/api/v1/search/files", "q", "bells");
        HttpResponse<String> answer = get("/api/v1/metrics");
        assertThat(answer.statusCode()).isEqualTo(200);
        assertThat(answer.headers().firstValue("Content-Type").orElseThrow())
                .startsWith("application/openmetrics-text");
        assertThat(answer.body())
                .endsWith("# EOF\n")
                .contains("\noddbeacon_repositories 1.0\n")
                .contains("# TYPE oddbeacon_searches_seconds histogram")
                .contains("oddbeacon_searches_seconds_count{outcome=\"answered\",subject=\"files\"}")
                .doesNotContain("pier", "bells");
    }

    @Test
    void anAnswerCarriesAnId() throws Exception {
        assertThat(get("/api/v1/search/lines?q=ring").headers().firstValue("Request-Id"))
                .hasValueSatisfying(id -> assertThat(id).matches("[0-9a-f]{32}"));
        assertThat(get("/api/v1/nothing").headers().firstValue("Request-Id")).isPresent();
        assertThat(get("/api/v1/status", "Sec-Fetch-Site", "cross-site", "Sec-Fetch-Mode", "no-cors")
                        .headers()
                        .firstValue("Request-Id"))
                .as("one that a filter refuses")
                .isPresent();
    }

    @Test
    void aSlowSearchIsLoggedByItsIdAndNotByWhatWasSearchedFor() throws Exception {
        Logger logger = (Logger) LoggerFactory.getLogger(RequestIds.class);
        ListAppender<ILoggingEvent> lines = new ListAppender<>();
        lines.start();
        logger.addAppender(lines);
        try {
            String id = get("/api/v1/search/lines?q=seagulls")
                    .headers()
                    .firstValue("Request-Id")
                    .orElseThrow();
            get("/api/v1/repositories");
            Waiting.until(() -> !lines.list.isEmpty());
            assertThat(lines.list)
                    .singleElement()
                    .satisfies(line -> assertThat(line.getFormattedMessage())
                            .startsWith("GET /api/v1/search/lines answered 200 after ")
                            .endsWith("request " + id)
                            .doesNotContain("seagulls"));
        } finally {
            logger.detachAppender(lines);
        }
    }

    @Test
    void theLogCanBeLinesOfJson() {
        LoggingEvent event = new LoggingEvent();
        event.setInstant(Instant.parse("2026-04-01T06:00:00Z"));
        event.setLevel(Level.WARN);
        event.setLoggerName("index");
        event.setThreadName("index-7");
        event.setMessage("{} is \"damaged\"");
        event.setArgumentArray(new Object[] {"a.segment"});
        event.setThrowableProxy(new ThrowableProxy(new IOException("cut")));
        event.setMDCPropertyMap(Map.of("request", "4bf9"));
        event.setLoggerContextRemoteView(new LoggerContextVO("test", Map.of(), 0));
        String line = new JsonLogLines().format(event);
        JsonNode json = JsonMapper.shared().readTree(line);
        assertThat(line).endsWith("\n").hasLineCount(1);
        assertThat(json.path("time").asString()).isEqualTo("2026-04-01T06:00:00Z");
        assertThat(json.path("level").asString()).isEqualTo("WARN");
        assertThat(json.path("message").asString()).isEqualTo("a.segment is \"damaged\"");
        assertThat(json.path("request").asString()).isEqualTo("4bf9");
        assertThat(json.path("error").asString()).startsWith("java.io.IOException: cut");
    }

    @Test
    void theIdIsThatOfTheTraceIfThereIsOne() throws Exception {
        String trace = "4bf92f3577b34da6a3ce929d0e0e4736";
        assertThat(get("/api/v1/status", "traceparent", "00-" + trace + "-00f067aa0ba902b7-01")
                        .headers()
                        .firstValue("Request-Id"))
                .hasValue(trace);
        for (String broken : List.of(
                "00-" + trace,
                "00-" + trace.replace('4', 'X') + "-00f067aa0ba902b7-01",
                "00-" + "0".repeat(32) + "-00f067aa0ba902b7-01")) {
            assertThat(get("/api/v1/status", "traceparent", broken).headers().firstValue("Request-Id"))
                    .hasValueSatisfying(id -> assertThat(broken).doesNotContain(id));
        }
    }
}
