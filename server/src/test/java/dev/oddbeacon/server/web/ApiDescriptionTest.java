package dev.oddbeacon.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class ApiDescriptionTest {
    @ParameterizedTest
    @CsvSource({
        "GET, /api/v1/search/lines, getSearchLines",
        "POST, /api/v1/search/lines, postSearchLines",
        "GET, /api/v1/repositories/{name}/file, getRepositoriesByNameFile",
        "PUT, /api/v1/worklists/{search}/items/{id}, putWorklistsBySearchItemsById",
        "GET, /api/v1/search/lines/second-looks, getSearchLinesSecondLooks",
        "POST, /mcp, postMcp",
    })
    void operationsAreNamedByMethodAndPath(String method, String path, String id) {
        assertThat(ApiDescription.operationId(method, path)).isEqualTo(id);
    }

    /** Records of one name in several others are not taken for each other. */
    @Test
    void everySchemaIsOfOneRecord(@TempDir Path folder) throws IOException {
        try (TestService service = TestService.start(Database.shared().create(), folder)) {
            JsonNode schemas = service.get("/api/v1/openapi.json")
                    .json()
                    .path("components")
                    .path("schemas");
            assertThat(schemas.path("LinesAnswerCounts").path("properties").propertyNames())
                    .contains("hits", "files", "repositories", "exact");
            assertThat(schemas.path("FilesAnswerCounts").path("properties").propertyNames())
                    .contains("files", "repositories", "exact")
                    .doesNotContain("hits");
            assertThat(schemas.path("SymbolsAnswerCounts").path("properties").propertyNames())
                    .contains("symbols");
            assertThat(schemas.path("LinesAnswer")
                            .path("properties")
                            .path("counts")
                            .path("$ref")
                            .asString())
                    .endsWith("/LinesAnswerCounts");
            assertThat(schemas.propertyNames())
                    .doesNotContain("Counts", "Set", "JsonNode", "SseEmitter", "StreamingResponseBody");
        }
    }
}
