package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.TestCluster;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.processes.Processes;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is deleted in the store, and what stays. */
class StoreUpkeepTest {
    @TempDir
    private Path folder;

    @Test
    void whatNothingNamesIsDeletedAfterAWhileAndNothingElse() throws IOException {
        TestCluster cluster = new TestCluster(folder);
        TestRepository tide = cluster.repository("tide", "eider one\n");
        try (TestService one = cluster.start("one", "--oddbeacon.cluster.grace=3s")) {
            one.add("tide", tide.path());
            Files.writeString(cluster.objects().resolve("notes.txt"), "somebody's");
            for (int i = 0; i < 3; i++) {
                tide.write("log.txt", "eider " + i + "\n").commit("Change " + i);
                one.post("/api/v1/repositories/tide/refresh", "application/json", "");
                int number = i;
                Waiting.until(() -> TestCluster.hits(one, "eider " + number) == 1);
                one.awaitReady("tide");
            }
            Path written = one.bean(Processes.class).newFiles().next("segment");
            Files.writeString(cluster.objects().resolve(written.getFileName()), "about to be recorded");
            one.bean(StoreUpkeep.class).round();
            assertThat(cluster.stored())
                    .as("what is not recorded has some time")
                    .contains(written.getFileName().toString())
                    .hasSizeGreaterThan(one.recordedFiles().size() + 2);
            Waiting.until(() -> {
                one.bean(StoreUpkeep.class).round();
                Set<String> there = cluster.stored();
                assertThat(there).as("nothing is lost").containsAll(one.recordedFiles());
                return there.size() == one.recordedFiles().size() + 1;
            });
            assertThat(cluster.stored()).contains("notes.txt");
        }
    }
}
