package dev.oddbeacon.server.health;

import dev.oddbeacon.server.processes.Processes;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.prometheusmetrics.PrometheusMeterRegistry;
import java.util.function.ToDoubleFunction;
import org.springframework.stereotype.Component;

/** Figures of the service for programs that collect them, in an open format; docs/health.md names them. */
@Component
class Metrics {
    static final String FORMAT = "application/openmetrics-text; version=1.0.0; charset=utf-8";

    private final PrometheusMeterRegistry registry;
    private final HealthHistory history;
    private volatile Reading now;

    Metrics(PrometheusMeterRegistry registry, HealthHistory history, Processes processes) {
        this.registry = registry;
        this.history = history;
        this.now = history.now();
        gauge("repositories", "Repositories that are registered.", Reading::repositories);
        gauge("repositories.failed", "Repositories whose last job failed.", Reading::failed);
        gauge("repositories.behind", "Repositories that have what is not indexed yet.", Reading::behind);
        gauge("jobs.waiting", "Jobs that wait.", Reading::waiting);
        gauge("jobs.oldest.seconds", "How long the oldest of them has waited.", Reading::oldestSeconds);
        gauge("segments", "Segments of the index.", Reading::segments);
        gauge("index.bytes", "The index on disk.", Reading::indexBytes);
        gauge("disk.free.bytes", "Free where the data folder is.", Reading::freeBytes);
        gauge("heap.bytes", "Heap in use after garbage was cleared away.", Reading::heapBytes);
        gauge("heap.limit.bytes", "What the heap may grow to.", Reading::heapLimitBytes);
        gauge(
                "resident.bytes",
                "Memory of its own, without mapped files.",
                it -> it.process().residentBytes());
        gauge("mappings", "Mappings of files and memory.", it -> it.process().mappings());
        gauge("handles", "Open files and connections.", it -> it.process().handles());
        Gauge.builder("oddbeacon.processes.indexing", processes, Processes::indexing)
                .description("Processes that index.")
                .register((MeterRegistry) registry);
        gauge("threads", "Threads of the system.", it -> it.process().threads());
    }

    private void gauge(String name, String description, ToDoubleFunction<Reading> figure) {
        Gauge.builder("oddbeacon." + name, this, metrics -> figure.applyAsDouble(metrics.now))
                .description(description)
                .register((MeterRegistry) registry);
    }

    /** All of them as they are now. */
    String text() {
        now = history.now();
        return registry.scrape(FORMAT);
    }
}
