package dev.oddbeacon.server.health;

import dev.oddbeacon.api.Health;
import dev.oddbeacon.server.web.BadRequestException;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Duration;
import java.util.Map;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/health} and {@code /api/v1/metrics}: for administrators, as they tell of all repositories. */
@RestController
class HealthController {
    /** A time that can be asked for. @param each what one reading of it is about, at least */
    private record Span(Duration time, Duration each) {}

    private static final Map<String, Span> SPANS = Map.of(
            "hour", new Span(Duration.ofHours(1), Duration.ofMinutes(1)),
            "day", new Span(HealthHistory.BY_MINUTE, Duration.ofMinutes(10)),
            "month", new Span(HealthHistory.KEPT, Duration.ofHours(4)));

    private final Examination examination;
    private final Metrics metrics;

    HealthController(Examination examination, Metrics metrics) {
        this.examination = examination;
        this.metrics = metrics;
    }

    @Operation(summary = "How the service is, what it was like, and what to do about what is not as it should be")
    @GetMapping("/api/v1/health")
    Health health(@Parameter(description = "hour, day or month") @RequestParam(defaultValue = "hour") String over) {
        Span span = SPANS.get(over);
        if (span == null) {
            throw new BadRequestException("over is hour, day or month, not \"" + over + "\".");
        }
        return examination.over(span.time, span.each);
    }

    @Operation(summary = "Figures of the service in the OpenMetrics text format")
    @GetMapping(path = "/api/v1/metrics", produces = Metrics.FORMAT)
    String metrics() {
        return metrics.text();
    }
}
