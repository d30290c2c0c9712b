package dev.oddbeacon.server.repositories;

import dev.oddbeacon.api.Overview;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.records.RepositoryRecord.State;
import io.swagger.v3.oas.annotations.Operation;
import java.util.Collection;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/overview} */
@RestController
class OverviewController {
    private final Contexts contexts;

    OverviewController(Contexts contexts) {
        this.contexts = contexts;
    }

    @Operation(summary = "How many repositories there are, how they are, and their labels")
    @GetMapping("/api/v1/overview")
    Overview overview(Caller caller) {
        try (CallerContext context = contexts.open(caller)) {
            List<Repository> all = List.copyOf(context.repositories());
            return new Overview(
                    all.size(),
                    count(all, State.WAITING),
                    count(all, State.INDEXING),
                    count(all, State.FAILED),
                    all.stream()
                            .map(Repository::labels)
                            .flatMap(Collection::stream)
                            .distinct()
                            .sorted()
                            .toList(),
                    Integer.toHexString(all.stream()
                            .map(repository -> List.of(repository.name(), commits(repository)))
                            .toList()
                            .hashCode()));
        }
    }

    private static int count(List<Repository> all, State state) {
        return (int)
                all.stream().filter(repository -> repository.state() == state).count();
    }

    private static List<String> commits(Repository repository) {
        return repository.branches().stream()
                .map(branch -> branch.name() + " " + branch.commit() + " " + branch.unread())
                .toList();
    }
}
