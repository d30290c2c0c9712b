package dev.oddbeacon.server.health;

import dev.oddbeacon.api.Health.Failure;
import dev.oddbeacon.api.Health.Finding;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;

/** What is not as it should be, and what to do about it: worked out from figures alone. docs/health.md lists all. */
final class Findings {
    private static final String ACT = "act";
    private static final String WATCH = "watch";
    private static final Duration LONG_WAIT = Duration.ofMinutes(15);
    private static final Duration LONG_SILENT = Duration.ofMinutes(15);
    private static final Duration LONG_BEHIND = Duration.ofHours(1);
    private static final Duration CERTIFICATE = Duration.ofDays(14);
    private static final double SLOW_MILLIS = 1_000; // of 95 % of the searches
    private static final int FEW_SEARCHES = 20; // of which 95 % say nothing
    private static final double MUCH = 0.85; // of a limit
    private static final int NAMED = 5;

    /**
     * What is known.
     *
     * @param now what was read just now
     * @param lately the readings of the last quarter of an hour
     * @param canReachRecords whether MariaDB answers
     * @param somebodyIndexes whether a process with that duty lives
     * @param indexingPauses why nothing is indexed
     * @param freeDisk what is to be kept free, in bytes
     * @param lastEnd that the service ended by itself before it was started
     * @param failures repositories that fail
     * @param behind names of repositories that have been behind for longer than an hour
     * @param silent names of repositories whose origin has not answered for longer than a quarter of an hour
     * @param rosters names of those that cannot be read, with the reason
     * @param storeProblem why the store of a cluster does not do its work
     * @param gone machines of a cluster that do not live
     * @param unreached machines of a cluster that live, and are not reached, with their addresses
     * @param follows whether repositories are asked at all
     * @param mostMappings and handles that this process may have
     * @param certificateEnds of TLS
     */
    record Known(
            Reading now,
            List<Reading> lately,
            boolean canReachRecords,
            boolean somebodyIndexes,
            Optional<String> indexingPauses,
            long freeDisk,
            Optional<String> lastEnd,
            List<Failure> failures,
            List<String> behind,
            List<String> silent,
            List<String> rosters,
            Optional<String> storeProblem,
            List<String> gone,
            List<String> unreached,
            boolean follows,
            Optional<Long> mostMappings,
            Optional<Long> mostHandles,
            Optional<Instant> certificateEnds) {}

    private final List<Finding> found = new ArrayList<>();
    private final Known known;

    private Findings(Known known) {
        this.known = known;
    }

    /** How long a repository may be behind before that is told. */
    static Duration longBehind() {
        return LONG_BEHIND;
    }

    /** How long an origin may be silent before that is told. */
    static Duration longSilent() {
        return LONG_SILENT;
    }

    /** The most pressing first. */
    static List<Finding> of(Known known) {
        Findings findings = new Findings(known);
        findings.records();
        findings.indexing();
        findings.machines();
        findings.disk();
        findings.searches();
        findings.repositories();
        findings.queue();
        findings.process();
        findings.certificate();
        findings.restarts();
        return findings.found.stream()
                .sorted(Comparator.comparing(finding -> finding.level().equals(WATCH)))
                .toList();
    }

    private void add(String level, String about, String what, String advice) {
        found.add(new Finding(level, about, what, advice));
    }

    private void records() {
        if (!known.canReachRecords) {
            add(
                    ACT,
                    "records",
                    "MariaDB does not answer.",
                    "Searching goes on, but nothing is indexed and nothing can be changed. Start MariaDB again, or look into its log.");
        }
    }

    private void indexing() {
        if (known.canReachRecords && !known.somebodyIndexes) {
            add(
                    ACT,
                    "indexing",
                    "No process indexes.",
                    "Searching goes on, but nothing new is found. Start one on the same data folder: ./oddbeacon serve --duty indexing, or start this one without --duty.");
        }
    }

    private void machines() {
        known.storeProblem.ifPresent(
                why -> add(
                        ACT,
                        "store",
                        why,
                        "Searching goes on, and what is new waits. Look at the store, and at what leads to it; it goes on by itself. If a file is damaged there, start this machine again: what the file held is then indexed anew."));
        for (String machine : known.gone) {
            add(
                    ACT,
                    "machines",
                    "The machine " + machine + " is gone.",
                    "The others answer for it. Start it again; if it does not come back: oddbeacon machines retire "
                            + machine + ".");
        }
        for (String machine : known.unreached) {
            add(
                    ACT,
                    "machines",
                    "This machine does not reach " + machine + ".",
                    "Each answers by itself, but no search goes on at another machine than it began. Let all machines reach that address, which --peer-address tells.");
        }
    }

    private void disk() {
        long free = known.now.freeBytes();
        if (known.indexingPauses.isPresent()) {
            add(
                    ACT,
                    "disk",
                    known.indexingPauses.get(),
                    "Make room where the data folder is, or set oddbeacon.free-disk lower.");
        } else if (free < 2 * known.freeDisk) {
            add(
                    WATCH,
                    "disk",
                    mebibytes(free) + " are free where the data folder is; below " + mebibytes(known.freeDisk)
                            + " indexing pauses.",
                    "Make room, or move the data folder to a larger disk.");
        }
    }

    private void searches() {
        Times times = Times.sum(known.lately.stream().map(Reading::times));
        long failed = known.lately.stream().mapToLong(Reading::failedSearches).sum();
        if (failed > 0) {
            add(
                    ACT,
                    "searches",
                    counted(failed, "search", "searches") + " failed in the last quarter of an hour.",
                    "The log tells of each, by its request id. If they were refused because the service was busy, give it more processors.");
        }
        OptionalDouble slow = times.millisOf(0.95);
        if (times.total() >= FEW_SEARCHES && slow.isPresent() && slow.getAsDouble() > SLOW_MILLIS) {
            add(
                    WATCH,
                    "searches",
                    "Of the last " + times.total() + " searches, one in 20 took longer than "
                            + Math.round(slow.getAsDouble() / 100) / 10.0 + " s.",
                    "The log names those that took longest. Memory that holds the index makes them faster, and so do processors.");
        }
    }

    private void repositories() {
        for (Failure failure : known.failures) {
            add(
                    ACT,
                    "failing",
                    counted(failure.count(), "repository", "repositories") + " cannot be brought up to date: "
                            + failure.reason(),
                    named(failure.repositories(), failure.count())
                            + ". What was indexed before can still be searched. Mend it there, and refresh; one that has changed is tried again by itself.");
        }
        if (!known.behind.isEmpty()) {
            add(
                    WATCH,
                    "behind",
                    counted(known.behind.size(), "repository", "repositories")
                            + " changed more than an hour ago and this is not indexed yet.",
                    named(known.behind, known.behind.size()) + ". The queue below tells whether they still wait.");
        }
        if (!known.silent.isEmpty()) {
            add(
                    WATCH,
                    "silent",
                    counted(known.silent.size(), "repository", "repositories")
                            + " cannot be asked whether something has changed, for a quarter of an hour or longer.",
                    named(known.silent, known.silent.size())
                            + ". The page of repositories tells why. They are asked again by themselves, ever more seldom.");
        }
        for (String roster : known.rosters) {
            add(
                    ACT,
                    "rosters",
                    roster,
                    "Nothing that came of it is taken out meanwhile. Mend the list, or its location.");
        }
        if (!known.follows) {
            add(
                    WATCH,
                    "following",
                    "Repositories are not asked whether they have changed.",
                    "Set oddbeacon.following.enabled to true, unless every one of them is refreshed in another way.");
        }
    }

    private void queue() {
        Duration oldest = Duration.ofSeconds(known.now.oldestSeconds());
        if (oldest.compareTo(LONG_WAIT) > 0 && known.indexingPauses.isEmpty()) {
            add(
                    WATCH,
                    "queue",
                    counted(known.now.waiting(), "job", "jobs") + " wait, the oldest for " + oldest.toMinutes()
                            + " min.",
                    "After many were registered this passes. If not, a large repository is being indexed, or a host is slow: the page of repositories tells what is being done.");
        }
    }

    private void process() {
        Reading now = known.now;
        if (now.heapBytes() > MUCH * now.heapLimitBytes()) {
            add(
                    ACT,
                    "memory",
                    "Of the heap of " + mebibytes(now.heapLimitBytes()) + ", " + mebibytes(now.heapBytes())
                            + " are in use after garbage was cleared away.",
                    "Give the service a larger heap: ODDBEACON_HEAP=2g ./oddbeacon serve. If it fills, the service ends and is started again.");
        }
        limit("mappings", now.process().mappings(), known.mostMappings, "sysctl -w vm.max_map_count=262144");
        limit("handles", now.process().handles(), known.mostHandles, "ulimit -n 65536, or LimitNOFILE in its unit");
    }

    private void limit(String what, int used, Optional<Long> most, String how) {
        if (most.isPresent() && used > MUCH * most.get()) {
            add(
                    ACT,
                    what,
                    "The process has " + used + " of the " + most.get() + " " + what + " that the system allows it.",
                    "Raise the limit before it is reached: " + how + ".");
        }
    }

    private void certificate() {
        known.certificateEnds.ifPresent(end -> {
            Duration left = Duration.between(known.now.at(), end);
            if (left.compareTo(CERTIFICATE) < 0) {
                add(
                        ACT,
                        "certificate",
                        left.isNegative()
                                ? "The certificate has ended: " + end + "."
                                : "The certificate ends in " + counted(left.toDays(), "day", "days") + ": " + end + ".",
                        "Renew it; the new files are taken without a restart.");
            }
        });
    }

    private void restarts() {
        known.lastEnd.ifPresent(end -> add(
                WATCH,
                "restarts",
                end,
                "If it happens again, the log of the service, just before, tells what was being done."));
    }

    private static String mebibytes(long bytes) {
        return (bytes >> 20) + " MiB";
    }

    private static String counted(long count, String one, String many) {
        return count + " " + (count == 1 ? one : many);
    }

    private static String named(List<String> names, int count) {
        String named = String.join(", ", names.subList(0, Math.min(NAMED, names.size())));
        return count > NAMED ? named + " and " + (count - NAMED) + " more" : named;
    }
}
