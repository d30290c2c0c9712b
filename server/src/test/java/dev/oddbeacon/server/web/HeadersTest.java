package dev.oddbeacon.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.TestTeam;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpHeaders;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What browsers are told, and what they must not be brought to. */
class HeadersTest {
    private static final HttpClient CLIENT = HttpClient.newHttpClient();

    private static TestTeam team;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        team = TestTeam.start(folder, "data");
    }

    @AfterAll
    static void stop() {
        team.close();
    }

    private static HttpResponse<String> get(String path, Map<String, String> headers)
            throws IOException, InterruptedException {
        HttpRequest.Builder request =
                HttpRequest.newBuilder(URI.create(team.service().address() + path));
        headers.forEach(request::header);
        return CLIENT.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    @ParameterizedTest
    @ValueSource(strings = {"/", "/sign-in", "/account", "/api/v1/session", "/api/v1/repositories", "/no/such/page"})
    void noPageIsShownWithinAnother(String path) throws Exception {
        HttpHeaders headers = get(path, Map.of()).headers();
        assertThat(headers.firstValue("Content-Security-Policy").orElseThrow())
                .contains("default-src 'none'", "frame-ancestors 'none'", "form-action 'none'", "base-uri 'none'");
        assertThat(headers.firstValue("X-Frame-Options")).contains("DENY");
        assertThat(headers.firstValue("X-Content-Type-Options")).contains("nosniff");
        assertThat(headers.firstValue("Referrer-Policy")).contains("no-referrer");
        assertThat(headers.firstValue("Cross-Origin-Resource-Policy")).contains("same-origin");
        assertThat(headers.firstValue("Server")).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "cross-site, navigate, document, 200",
        "cross-site, navigate, iframe, 403",
        "cross-site, no-cors, script, 403",
        "same-site, cors, empty, 403",
        "none, navigate, document, 200",
    })
    void otherSitesMayLinkToAPageAndNothingElse(String site, String mode, String destination, int status)
            throws Exception {
        // the client of the JDK sends what it is given
        Map<String, String> headers =
                Map.of("Sec-Fetch-Site", site, "Sec-Fetch-Mode", mode, "Sec-Fetch-Dest", destination);
        assertThat(get("/account", headers).statusCode()).isEqualTo(status);
    }

    /** An address is kept in histories and logs. */
    @ParameterizedTest
    @ValueSource(strings = {"access_token", "token", "Authorization", "session", "oddbeacon-session"})
    void aTokenInAnAddressIsNone(String parameter) throws Exception {
        String token = team.administrator()
                .post("/api/v1/tokens", Map.of("name", "tests"))
                .json()
                .path("token")
                .asString();
        assertThat(get("/api/v1/repositories", Map.of("Authorization", "Bearer " + token))
                        .statusCode())
                .isEqualTo(200);
        assertThat(get("/api/v1/repositories?" + parameter + "=" + token, Map.of())
                        .statusCode())
                .isEqualTo(401);
    }

    @Test
    void aSessionThatSomebodyHasChosenIsNotTaken() throws Exception {
        assertThat(get("/api/v1/repositories", Map.of("Cookie", "oddbeacon-session=chosen"))
                        .statusCode())
                .isEqualTo(401);
    }
}
