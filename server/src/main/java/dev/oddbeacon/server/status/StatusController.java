package dev.oddbeacon.server.status;

import dev.oddbeacon.api.IndexCheck;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.ServiceStatus;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.index.Catalogue;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.index.LiveIndex;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import javax.sql.DataSource;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

@RestController
class StatusController {
    private static final int DATABASE_SECONDS = 2;

    private final Catalogue catalogue;
    private final LiveIndex index;
    private final IndexJobs jobs;
    private final DataSource database;

    StatusController(Catalogue catalogue, LiveIndex index, IndexJobs jobs, DataSource database) {
        this.catalogue = catalogue;
        this.index = index;
        this.jobs = jobs;
        this.database = database;
    }

    /** How the service is, in numbers. */
    @GetMapping("/api/v1/status")
    ServiceStatus status() {
        List<RepositoryInfo> all = catalogue.all();
        List<RepositoryInfo.Branch> branches = all.stream().flatMap(info -> info.branches().stream()).toList();
        View view = index.acquire();
        try {
            Runtime runtime = Runtime.getRuntime();
            return new ServiceStatus(Optional.ofNullable(getClass().getPackage().getImplementationVersion()).orElse("unknown"), canReachDatabase(),
                    all.size(), (int) all.stream().filter(info -> info.state().equals("waiting") || info.state().equals("indexing")).count(),
                    (int) all.stream().filter(info -> info.state().equals("failed")).count(),
                    branches.stream().mapToInt(RepositoryInfo.Branch::files).sum(), branches.stream().mapToLong(RepositoryInfo.Branch::lines).sum(),
                    branches.stream().mapToLong(RepositoryInfo.Branch::bytes).sum(),
                    view.segments().stream().mapToLong(SegmentReader::size).sum(), view.segments().size(), all.stream().mapToLong(info -> info.history().commits()).sum(),
                    all.stream().mapToLong(info -> view.past(info.name()).size()).sum(), runtime.totalMemory() - runtime.freeMemory());
        } finally {
            view.release();
        }
    }

    /** Compares all files of the index with their checksums; damaged ones are taken out and rebuilt. */
    @PostMapping("/api/v1/status/verify")
    IndexCheck verify() throws IOException {
        long start = System.nanoTime();
        LiveIndex.Check check = jobs.verify();
        return new IndexCheck(check.files(), check.bytes(), check.damaged(), (System.nanoTime() - start) / 10_000 / 100.0);
    }

    private boolean canReachDatabase() {
        try (Connection connection = database.getConnection()) {
            return connection.isValid(DATABASE_SECONDS);
        } catch (SQLException e) {
            return false;
        }
    }
}
