package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.RepositoryChanges;
import dev.oddbeacon.server.records.HistoryRecord;
import dev.oddbeacon.server.records.HistoryRecords;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files of a past that are lost while somebody reads on from them. */
class PastLostTest {
    @TempDir
    private Path folder;

    private TestService service;
    private long id;
    private String first;

    /** A repository whose past is in two files. */
    @BeforeEach
    void start() throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve("tide"));
        for (int day = 1; day <= 3; day++) {
            repository.write("log.txt", "day " + day + "\n").commit("Log " + day);
        }
        service = TestService.start(Database.shared().create(), folder.resolve("data"));
        service.add("tide", repository.path());
        id = service.bean(Catalogue.class).find("tide").orElseThrow().id();
        HistoryRecords records = service.bean(HistoryRecords.class);
        first = records.files().getFirst();
        repository.write("log.txt", "day 4\n").commit("Log 4");
        service.post("/api/v1/repositories/tide/refresh", "application/json", "");
        service.awaitReady("tide");
        assertThat(commits()).isEqualTo(4);
        assertThat(records.findByRepositoryIdIn(List.of(id)).stream().map(HistoryRecord::file))
                .hasSize(2)
                .contains(first);
    }

    @Test
    void thatItWasReadIsNotRecordedOverALossOfTheSameMoment() throws InterruptedException {
        RepositoryChanges changes = service.bean(RepositoryChanges.class);
        CountDownLatch isRead = new CountDownLatch(1);
        Thread loser = Thread.ofPlatform().start(() -> {
            try {
                isRead.await();
            } catch (InterruptedException e) {
                return;
            }
            changes.change(id, record -> record.history(record.history().lost()));
        });
        changes.change(id, record -> record.history(record.history().begun()));
        changes.change(id, record -> {
            isRead.countDown();
            waitFor(loser, Duration.ofSeconds(2)); // it must not end before this one has
            record.history(record.history().read(true, 1, Optional.empty(), 0, 0, Optional.empty()));
        });
        loser.join();
        assertThat(service.bean(Catalogue.class)
                        .find("tide")
                        .orElseThrow()
                        .past()
                        .complete())
                .as("the loss came last")
                .isFalse();
    }

    private static void waitFor(Thread thread, Duration most) {
        try {
            thread.join(most);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    @AfterEach
    void stop() {
        service.close();
    }

    private int commits() {
        return service.get("/api/v1/search/commits", "q", "Log", "repo", "tide")
                .json()
                .path("counts")
                .path("commits")
                .asInt();
    }

    @Test
    void areReadAgainThoughWhoeverWasReadingHadBegunBefore() throws IOException {
        Files.write(folder.resolve("data/index").resolve(first), new byte[10]);
        assertThat(service.bean(IndexUpkeep.class).verify().damaged()).containsExactly(first);
        service.bean(HistoryJobs.class).finish(id, 0, Optional.empty());
        service.awaitReady("tide");
        assertThat(commits()).isEqualTo(4);
    }

    @Test
    void areReadAgainThoughTheViewHasThemStill() throws IOException {
        service.bean(RepositoryChanges.class).change(id, record -> {
            service.bean(HistoryRecords.class).deleteById(first);
            record.history(record.history().lost());
        });
        service.bean(HistoryJobs.class).request(id);
        Waiting.until(() -> service.get("/api/v1/repositories/tide")
                .json()
                .path("history")
                .path("complete")
                .asBoolean());
        service.bean(Publisher.class).publish();
        assertThat(commits()).isEqualTo(4);
    }
}
