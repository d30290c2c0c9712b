package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** A large repository is searched in parts while it is read for the first time. */
class InPartsTest {
    private static final int FILES = 30;
    private static final int FILE_BYTES = 1 << 20;

    @TempDir
    private Path folder;

    private Path large() throws IOException {
        TestRepository repository = TestRepository.create(folder.resolve("large"));
        Random random = new Random(7);
        for (int i = 0; i < FILES; i++) {
            StringBuilder text = new StringBuilder("sounding " + i + "\n");
            while (text.length() < FILE_BYTES) {
                text.append(Long.toString(random.nextLong(), 36)).append(random.nextInt(8) == 0 ? '\n' : ' ');
            }
            repository.write("soundings/file" + i + ".txt", text.toString());
        }
        return repository.commit("Soundings").path();
    }

    private static JsonNode lines(TestService service) {
        return service.get("/api/v1/search/lines", "q", "sounding", "limit", "100")
                .json();
    }

    @Test
    void answersWithWhatThereIsAndGoesOnThereAfterARestart() throws IOException {
        List<String> database = Database.shared().create();
        Path data = folder.resolve("data");
        Path large = large();
        try (TestService service = TestService.start(database, data)) {
            service.post(
                    "/api/v1/repositories", "application/json", "{\"name\":\"large\",\"location\":\"" + large + "\"}");
            Waiting.until(() -> service.get("/api/v1/search/files", "q", "file")
                            .json()
                            .path("counts")
                            .path("files")
                            .asInt()
                    == FILES);
            JsonNode answer = lines(service);
            assertThat(answer.path("index").path("complete").asBoolean()).isFalse();
            JsonNode part = answer.path("index").path("parts").path(0);
            assertThat(part.path("repository").asString()).isEqualTo("large");
            assertThat(part.path("searchedBytes").asLong())
                    .isLessThan(part.path("bytes").asLong());
            assertThat(service.get("/api/v1/repositories/large")
                            .json()
                            .path("branches")
                            .path(0)
                            .path("unreadBytes")
                            .asLong())
                    .isPositive();
        }
        try (TestService service = TestService.start(database, data)) {
            service.awaitReady("large");
            JsonNode answer = lines(service);
            assertThat(answer.path("index").path("complete").asBoolean()).isTrue();
            assertThat(answer.path("index").path("parts")).isEmpty();
            assertThat(answer.path("counts").path("hits").asInt()).isEqualTo(FILES);
        }
    }
}
