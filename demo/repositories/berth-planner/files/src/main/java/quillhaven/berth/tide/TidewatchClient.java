package quillhaven.berth.tide;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.time.Instant;

/** Asks tidewatch. A station that does not answer counts as no water at all: better a refused plan than a ferry aground. */
public final class TidewatchClient implements TideSource {
    private static final Duration TIMEOUT = Duration.ofSeconds(3);

    private final HttpClient http = HttpClient.newBuilder().connectTimeout(TIMEOUT).build();
    private final URI base;

    public TidewatchClient(URI base) {
        this.base = base;
    }

    @Override
    public double lowestLevel(String terminal, Instant from, Instant until) {
        URI uri = base.resolve("/v2/levels/" + terminal + "/lowest?from=" + from + "&until=" + until);
        try {
            HttpResponse<String> response = http.send(HttpRequest.newBuilder(uri).timeout(TIMEOUT).build(), HttpResponse.BodyHandlers.ofString());
            return response.statusCode() == 200 ? Double.parseDouble(response.body().strip()) : Double.NEGATIVE_INFINITY;
        } catch (IOException e) {
            return Double.NEGATIVE_INFINITY;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Double.NEGATIVE_INFINITY;
        }
    }
}
