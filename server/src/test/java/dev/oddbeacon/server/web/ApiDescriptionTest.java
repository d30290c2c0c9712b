package dev.oddbeacon.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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
}
