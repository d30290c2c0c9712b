package dev.oddbeacon.e2e;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Requests of tests. */
final class Http {
    private static final HttpClient CLIENT = HttpClient.newHttpClient();
    private static final int LONGEST_ADDRESS = 8_000;
    private static final JsonMapper JSON = JsonMapper.shared();

    private Http() {}

    record Answer(int status, JsonNode json, HttpResponse<byte[]> response) {
        String text(String field) {
            return json.path(field).asString();
        }
    }

    /**
     * Asks; parameters that are too long for an address go as a form.
     *
     * @param parameters names and values in turn
     */
    static Answer get(String address, String path, String... parameters) {
        StringBuilder query = new StringBuilder();
        for (int i = 0; i < parameters.length; i += 2) {
            query.append(i == 0 ? "" : "&")
                    .append(parameters[i])
                    .append('=')
                    .append(URLEncoder.encode(parameters[i + 1], StandardCharsets.UTF_8));
        }
        return query.length() > LONGEST_ADDRESS
                ? post(address, path, query.toString(), "Content-Type", "application/x-www-form-urlencoded")
                : send(HttpRequest.newBuilder(URI.create(address + path + (query.isEmpty() ? "" : "?" + query))));
    }

    static Answer post(String address, String path, String body, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(address + path))
                .setHeader("Content-Type", "application/json")
                .POST(HttpRequest.BodyPublishers.ofString(body));
        for (int i = 0; i < headers.length; i += 2) {
            request.setHeader(headers[i], headers[i + 1]);
        }
        return send(request);
    }

    static Answer put(String address, String path, String body) {
        return send(HttpRequest.newBuilder(URI.create(address + path))
                .header("Content-Type", "application/json")
                .PUT(HttpRequest.BodyPublishers.ofString(body)));
    }

    static Answer delete(String address, String path) {
        return send(HttpRequest.newBuilder(URI.create(address + path)).DELETE());
    }

    private static Answer send(HttpRequest.Builder request) {
        try {
            HttpResponse<byte[]> response = CLIENT.send(
                    request.timeout(Duration.ofSeconds(60)).build(), HttpResponse.BodyHandlers.ofByteArray());
            boolean isJson =
                    response.headers().firstValue("Content-Type").orElse("").contains("json");
            return new Answer(
                    response.statusCode(), isJson ? JSON.readTree(response.body()) : JSON.nullNode(), response);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
