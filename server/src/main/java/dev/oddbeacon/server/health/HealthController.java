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
    /** Times that can be asked for, and how many readings each is told in: about two hundred. */
    private static final Map<String, Duration> EACH = Map.of(
            "hour", Duration.ofMinutes(1),
            "day", Duration.ofMinutes(10),
            "month", Duration.ofHours(4));

    private static final Map<String, Duration> TIMES =
            Map.of("hour", Duration.ofHours(1), "day", HealthHistory.BY_MINUTE, "month", HealthHistory.KEPT);

    private final Examination examination;
    private final Metrics metrics;

    HealthController(Examination examination, Metrics metrics) {
        this.examination = examination;
        this.metrics = metrics;
    }

    @Operation(summary = "How the service is, what it was like, and what to do about what is not as it should be")
    @GetMapping("/api/v1/health")
    Health health(@Parameter(description = "hour, day or month") @RequestParam(defaultValue = "hour") String over) {
        if (!TIMES.containsKey(over)) {
            throw new BadRequestException("over is hour, day or month, not \"" + over + "\".");
        }
        return examination.over(TIMES.get(over), EACH.get(over));
    }

    @Operation(summary = "Figures of the service in the OpenMetrics text format")
    @GetMapping(path = "/api/v1/metrics", produces = Metrics.FORMAT)
    String metrics() {
        return metrics.text();
    }
}
