package dev.oddbeacon.server.health;

import dev.oddbeacon.api.HealthReading;
import java.time.Instant;
import java.util.OptionalDouble;

/** What the service was like over some time; the fields are told at {@link HealthReading}. */
record Reading(
        Instant at,
        int seconds,
        Times times,
        long failedSearches,
        int waiting,
        long oldestSeconds,
        int repositories,
        int failed,
        int behind,
        int segments,
        long indexBytes,
        long freeBytes,
        long heapBytes,
        long heapLimitBytes,
        OfProcess process) {
    /** What the operating system tells of this process; 0 where it does not. */
    record OfProcess(long residentBytes, int mappings, int handles, int threads) {
        OfProcess worst(OfProcess other) {
            return new OfProcess(
                    Math.max(residentBytes, other.residentBytes),
                    Math.max(mappings, other.mappings),
                    Math.max(handles, other.handles),
                    Math.max(threads, other.threads));
        }
    }

    /** Both times as one: searches are added, of all else the worst is taken. */
    Reading and(Reading later) {
        return new Reading(
                later.at,
                seconds + later.seconds,
                times.plus(later.times),
                failedSearches + later.failedSearches,
                Math.max(waiting, later.waiting),
                Math.max(oldestSeconds, later.oldestSeconds),
                Math.max(repositories, later.repositories),
                Math.max(failed, later.failed),
                Math.max(behind, later.behind),
                Math.max(segments, later.segments),
                Math.max(indexBytes, later.indexBytes),
                Math.min(freeBytes, later.freeBytes),
                Math.max(heapBytes, later.heapBytes),
                Math.max(heapLimitBytes, later.heapLimitBytes),
                process.worst(later.process));
    }

    HealthReading onTheWire() {
        return new HealthReading(
                at,
                seconds,
                times.total(),
                failedSearches,
                rounded(times.millisOf(0.5)),
                rounded(times.millisOf(0.95)),
                waiting,
                oldestSeconds,
                repositories,
                failed,
                behind,
                segments,
                indexBytes,
                freeBytes,
                heapBytes,
                heapLimitBytes,
                process.residentBytes,
                process.mappings,
                process.handles,
                process.threads);
    }

    private static Double rounded(OptionalDouble millis) {
        return millis.isPresent() ? Math.round(millis.getAsDouble() * 10) / 10.0 : null;
    }
}
