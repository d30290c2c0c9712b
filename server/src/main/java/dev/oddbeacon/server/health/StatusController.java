package dev.oddbeacon.server.health;

import dev.oddbeacon.api.IndexCheck;
import dev.oddbeacon.api.ServiceStatus;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.index.Disk;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.index.IndexUpkeep;
import dev.oddbeacon.server.load.TakesItsTime;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import dev.oddbeacon.server.web.ApiDescription;
import dev.oddbeacon.server.web.Parameters;
import java.io.IOException;
import java.util.List;
import java.util.stream.Stream;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
class StatusController {
    private final Contexts contexts;
    private final IndexJobs jobs;
    private final Disk disk;
    private final Restarts restarts;
    private final RecordsReached records;

    StatusController(Contexts contexts, IndexJobs jobs, Disk disk, Restarts restarts, RecordsReached records) {
        this.contexts = contexts;
        this.jobs = jobs;
        this.disk = disk;
        this.restarts = restarts;
        this.records = records;
    }

    /** The state of the service, in numbers. */
    @GetMapping("/api/v1/status")
    ServiceStatus status(Caller caller) {
        try (CallerContext context = contexts.open(caller)) {
            List<Repository> all = context.repositories();
            List<Repository.IndexedBranch> branches = all.stream()
                    .flatMap(repository -> repository.branches().stream())
                    .toList();
            View view = context.view();
            Runtime runtime = Runtime.getRuntime();
            return new ServiceStatus(
                    ApiDescription.version(),
                    records.areReached(),
                    all.size(),
                    (int) all.stream().filter(Repository::isBusy).count(),
                    (int) all.stream()
                            .filter(repository -> repository.state() == State.FAILED)
                            .count(),
                    branches.stream().mapToInt(Repository.IndexedBranch::files).sum(),
                    branches.stream().mapToLong(Repository.IndexedBranch::lines).sum(),
                    branches.stream().mapToLong(Repository.IndexedBranch::bytes).sum(),
                    view.segments().stream().mapToLong(SegmentReader::size).sum(),
                    view.segments().size(),
                    all.stream()
                            .mapToLong(repository -> repository.past().commits())
                            .sum(),
                    all.stream()
                            .mapToLong(
                                    repository -> view.past(repository.name()).size())
                            .sum(),
                    runtime.totalMemory() - runtime.freeMemory(),
                    warnings());
        }
    }

    private List<String> warnings() {
        return Stream.concat(disk.problem().stream(), restarts.lastEnd().stream())
                .toList();
    }

    /** Compares all files of the index with their checksums; damaged ones are taken out and rebuilt. */
    @PostMapping("/api/v1/status/verify")
    @TakesItsTime
    IndexCheck verify() throws IOException {
        long start = System.nanoTime();
        IndexUpkeep.Check check = jobs.verify();
        return new IndexCheck(check.files(), check.bytes(), check.damaged(), Parameters.millisSince(start));
    }
}
