package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files of a past that are lost while somebody reads on from them. */
class PastLostTest {
    @TempDir
    private Path folder;

    private static int commits(TestService service) {
        return service.get("/api/v1/search/commits", "q", "Log", "repo", "tide")
                .json()
                .path("counts")
                .path("commits")
                .asInt();
    }

    @Test
    void areReadAgainThoughWhoeverWasReadingHadBegunBefore() throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve("tide"));
        for (int day = 1; day <= 3; day++) {
            repository.write("log.txt", "day " + day + "\n").commit("Log " + day);
        }
        try (TestService service = TestService.start(Database.shared().create(), folder.resolve("data"))) {
            service.add("tide", repository.path());
            long id = service.bean(Catalogue.class).find("tide").orElseThrow().id();
            HistoryRecords records = service.bean(HistoryRecords.class);
            String first = records.files().getFirst();
            repository.write("log.txt", "day 4\n").commit("Log 4");
            service.post("/api/v1/repositories/tide/refresh", "application/json", "");
            service.awaitReady("tide");
            assertThat(commits(service)).isEqualTo(4);
            assertThat(records.findByRepositoryIdIn(List.of(id)).stream().map(HistoryRecord::file))
                    .as("files, of which one is lost")
                    .hasSize(2)
                    .contains(first);

            Files.write(folder.resolve("data/index").resolve(first), new byte[10]);
            assertThat(service.bean(IndexUpkeep.class).verify().damaged()).containsExactly(first);
            service.bean(HistoryJobs.class).finish(id, 0, Optional.empty());
            service.awaitReady("tide");
            assertThat(commits(service)).isEqualTo(4);
        }
    }
}
