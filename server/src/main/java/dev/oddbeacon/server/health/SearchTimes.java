package dev.oddbeacon.server.health;

import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import io.micrometer.core.instrument.distribution.CountAtBucket;
import java.time.Duration;
import java.util.Arrays;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** How long searches take, by subject and by how they end. What is counted here is what the metrics tell, too. */
@Component
class SearchTimes {
    private record Kind(String subject, boolean failed) {}

    private final MeterRegistry meters;
    private final Map<Kind, Timer> timers = new ConcurrentHashMap<>();

    SearchTimes(MeterRegistry meters) {
        this.meters = meters;
    }

    /** @param failed whether it ended in an error of the service */
    void add(String subject, boolean failed, Duration took) {
        timers.computeIfAbsent(new Kind(subject, failed), this::timer).record(took);
    }

    private Timer timer(Kind kind) {
        return Timer.builder("oddbeacon.searches")
                .description("Searches, from the first byte of the request to the last of the answer.")
                .tag("subject", kind.subject)
                .tag("outcome", kind.failed ? "failed" : "answered")
                .serviceLevelObjectives(Times.ends())
                .register(meters);
    }

    /** All since the start. */
    Times all() {
        return Times.sum(timers.values().stream().map(SearchTimes::times));
    }

    /** How many failed since the start. */
    long failed() {
        return timers.entrySet().stream()
                .filter(entry -> entry.getKey().failed)
                .mapToLong(entry -> entry.getValue().count())
                .sum();
    }

    private static Times times(Timer timer) {
        var snapshot = timer.takeSnapshot();
        double[] upTo = Arrays.stream(snapshot.histogramCounts())
                .mapToDouble(CountAtBucket::count)
                .toArray();
        int ranges = Times.ends().length;
        double[] all = Arrays.copyOf(upTo, ranges + 1);
        all[ranges] = snapshot.count();
        return Times.ofCumulative(all);
    }
}
