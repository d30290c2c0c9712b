package dev.oddbeacon.client.service;

import dev.oddbeacon.api.Problem;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.ConnectException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import picocli.CommandLine.Option;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.cfg.DateTimeFeature;
import tools.jackson.databind.json.JsonMapper;

/**
 * Requests to the service. The plain connection of the JDK, not its newer HTTP client: a command sends one request
 * and should have ended before the other would have loaded its classes.
 */
public final class Service {
    private static final int CONNECT_MILLIS = 5_000;
    private static final int LONGEST_ADDRESS = 8_000;
    private static final String ANYTHING = "application/json, */*";
    public static final JsonMapper JSON = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .disable(DateTimeFeature.ADJUST_DATES_TO_CONTEXT_TIME_ZONE)
            .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .build();

    @Option(
            names = "--url",
            paramLabel = "URL",
            defaultValue = "${env:ODDBEACON_URL:-http://127.0.0.1:7420}",
            description = "Where the service is (default: $ODDBEACON_URL or http://127.0.0.1:7420).")
    private String url;

    /** Names and values of a request, in order. */
    public static final class Parameters {
        private record Pair(String name, String value) {
            @Override
            public String toString() {
                return encoded(name) + "=" + encoded(value);
            }
        }

        private final List<Pair> pairs = new ArrayList<>();

        /** @param value a constant of an enumeration stands for its name in small letters */
        public Parameters add(String name, Object value) {
            String text =
                    value instanceof Enum<?> constant ? constant.name().toLowerCase(Locale.ROOT) : value.toString();
            pairs.add(new Pair(name, text));
            return this;
        }

        /** Adds a value unless it is null or empty. */
        public Parameters addGiven(String name, String value) {
            return value == null || value.isEmpty() ? this : add(name, value);
        }

        public Parameters addAll(String name, Collection<String> values) {
            values.forEach(value -> add(name, value));
            return this;
        }

        public Parameters addAll(Parameters others) {
            pairs.addAll(others.pairs);
            return this;
        }

        private static String encoded(String text) {
            return URLEncoder.encode(text, StandardCharsets.UTF_8);
        }

        /** The values of each, by name. */
        public SortedMap<String, List<String>> values() {
            SortedMap<String, List<String>> values = new TreeMap<>();
            pairs.forEach(pair ->
                    values.computeIfAbsent(pair.name, _ -> new ArrayList<>()).add(pair.value));
            return values;
        }

        String form() {
            return pairs.stream().map(Pair::toString).collect(Collectors.joining("&"));
        }

        @Override
        public String toString() {
            return pairs.isEmpty() ? "" : "?" + form();
        }
    }

    /** Where it is. */
    public String url() {
        return url;
    }

    /** Where its console is, ending with a slash. */
    public String console() {
        return url.endsWith("/") ? url : url + "/";
    }

    public <T> T get(String path, Parameters parameters, Class<T> type) {
        return request("GET", path + parameters, Body.NONE, body -> JSON.readValue(body, type));
    }

    /** A search, whose parameters may be too long for an address. */
    public <T> T search(String path, Parameters parameters, Class<T> type) {
        byte[] form = parameters.form().getBytes(StandardCharsets.UTF_8);
        return form.length < LONGEST_ADDRESS
                ? get(path, parameters, type)
                : request(
                        "POST",
                        path,
                        new Body("application/x-www-form-urlencoded", form),
                        body -> JSON.readValue(body, type));
    }

    public <T> T get(String path, TypeReference<T> type) {
        return get(path, new Parameters(), type);
    }

    public <T> T get(String path, Parameters parameters, TypeReference<T> type) {
        return request("GET", path + parameters, Body.NONE, body -> JSON.readValue(body, type));
    }

    public byte[] bytes(String path, Parameters parameters) {
        return bytes(path, parameters, ANYTHING);
    }

    /** @param accepted the media type that is wanted */
    public byte[] bytes(String path, Parameters parameters, String accepted) {
        return request("GET", path + parameters, Body.NONE, accepted, InputStream::readAllBytes);
    }

    /** What comes of it as bytes. */
    public byte[] postBytes(String path, Object body) {
        return request("POST", path, Body.json(body), InputStream::readAllBytes);
    }

    public <T> T post(String path, Object body, Class<T> type) {
        return request("POST", path, Body.json(body), answer -> JSON.readValue(answer, type));
    }

    public <T> T put(String path, Object body, Class<T> type) {
        return request("PUT", path, Body.json(body), answer -> JSON.readValue(answer, type));
    }

    public <T> T postText(String path, String contentType, String text, TypeReference<T> type) {
        return request(
                "POST",
                path,
                new Body(contentType, text.getBytes(StandardCharsets.UTF_8)),
                answer -> JSON.readValue(answer, type));
    }

    public <T> T postText(String path, String contentType, String text, Class<T> type) {
        return request(
                "POST",
                path,
                new Body(contentType, text.getBytes(StandardCharsets.UTF_8)),
                answer -> JSON.readValue(answer, type));
    }

    /** A form, of which every answer is read, refusals too. */
    public <T> T form(String path, Parameters parameters, Class<T> type) {
        Body body =
                new Body("application/x-www-form-urlencoded", parameters.form().getBytes(StandardCharsets.UTF_8));
        return request("POST", path, body, ANYTHING, true, in -> JSON.readValue(in, type));
    }

    public void delete(String path) {
        request("DELETE", path, Body.NONE, InputStream::readAllBytes);
    }

    /** A path of the interface, its parts encoded. */
    public static String path(String... parts) {
        StringBuilder path = new StringBuilder("/api/v1");
        for (String part : parts) {
            path.append('/')
                    .append(URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20"));
        }
        return path.toString();
    }

    private interface Reader<T> {
        T read(InputStream body) throws IOException;
    }

    /** The body of a request; there is none if the type is empty. */
    private record Body(String contentType, byte[] bytes) {
        static final Body NONE = new Body("", new byte[0]);

        static Body json(Object value) {
            return value == null ? NONE : new Body("application/json", JSON.writeValueAsBytes(value));
        }
    }

    /** Where the service is, without a slash at the end. */
    public String address() {
        return url.endsWith("/") ? url.substring(0, url.length() - 1) : url;
    }

    /** Keeps a token for this service, or forgets the one that is kept. @return where */
    public Path keep(Optional<String> token) {
        return new SavedTokens().keep(address(), token);
    }

    private <T> T request(String method, String path, Body body, Reader<T> reader) {
        return request(method, path, body, ANYTHING, reader);
    }

    private <T> T request(String method, String path, Body body, String accepted, Reader<T> reader) {
        return request(method, path, body, accepted, false, reader);
    }

    private <T> T request(
            String method, String path, Body body, String accepted, boolean readsRefusals, Reader<T> reader) {
        String address = address();
        try {
            HttpURLConnection connection =
                    (HttpURLConnection) URI.create(address + path).toURL().openConnection();
            connection.setRequestMethod(method);
            connection.setConnectTimeout(CONNECT_MILLIS);
            connection.setRequestProperty("Accept", accepted);
            new SavedTokens()
                    .find(address)
                    .ifPresent(token -> connection.setRequestProperty("Authorization", "Bearer " + token));
            if (!body.contentType.isEmpty()) {
                connection.setDoOutput(true);
                connection.setRequestProperty("Content-Type", body.contentType);
                try (OutputStream out = connection.getOutputStream()) {
                    out.write(body.bytes);
                }
            }
            if (readsRefusals && connection.getResponseCode() == 400) {
                try (InputStream in = connection.getErrorStream()) {
                    return reader.read(in);
                }
            }
            if (connection.getResponseCode() >= 400) {
                throw problem(connection);
            }
            try (InputStream in = connection.getInputStream()) {
                return reader.read(in);
            }
        } catch (ConnectException e) {
            throw new ServiceProblem(
                    "No service answers at " + address
                            + ". Start it with ./oddbeacon serve or ./oddbeacon demo, or say where it is with --url.",
                    ExitStatus.FAILED);
        } catch (IllegalArgumentException | ClassCastException e) {
            throw new ServiceProblem(
                    "\"" + url + "\" is not the address of a service. It looks like http://127.0.0.1:7420.",
                    ExitStatus.WRONG);
        } catch (IOException | JacksonException e) {
            throw new ServiceProblem(
                    "The service at " + address + " could not be asked: " + e.getMessage(), ExitStatus.FAILED);
        }
    }

    private static ServiceProblem problem(HttpURLConnection connection) throws IOException {
        int status = connection.getResponseCode();
        int exit = status == 404 ? ExitStatus.NOTHING_FOUND : status >= 500 ? ExitStatus.FAILED : ExitStatus.WRONG;
        InputStream body = connection.getErrorStream();
        if (body == null) {
            return new ServiceProblem("The service answered with status " + status + ".", exit);
        }
        try (body) {
            if (status == 401) {
                return new ServiceProblem(
                        "Nobody is signed in at " + connection.getURL().getAuthority()
                                + ", or the token has ended: run oddbeacon sign-in, or set ODDBEACON_TOKEN.",
                        exit);
            }
            Problem problem = JSON.readValue(body, Problem.class);
            return new ServiceProblem(
                    problem.detail() == null ? "The service answered with status " + status + "." : problem.detail(),
                    exit,
                    problem.mistakes() == null ? List.of() : problem.mistakes());
        } catch (JacksonException e) {
            return new ServiceProblem(
                    "What answers at " + connection.getURL().getAuthority() + " is not Odd Beacon (status " + status
                            + ").",
                    ExitStatus.FAILED);
        }
    }
}
