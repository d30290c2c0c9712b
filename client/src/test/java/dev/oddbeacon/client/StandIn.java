package dev.oddbeacon.client;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.oddbeacon.api.Problem;
import dev.oddbeacon.client.service.Service;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Function;

/** Answers in place of a service with what a test says, and remembers what it was asked. */
public final class StandIn implements AutoCloseable {
    /** What was asked. @param parameters of the address or of the form */
    public record Request(String method, String path, Map<String, List<String>> parameters, String body) {
        /** The first value of a parameter; empty if there is none. */
        public String parameter(String name) {
            return parameters.getOrDefault(name, List.of("")).getFirst();
        }
    }

    /** A refusal. */
    public static final class Refusal extends RuntimeException {
        private static final long serialVersionUID = 1;
        private final transient Problem problem;

        public Refusal(int status, String detail, Problem.Mistake... mistakes) {
            super(detail);
            this.problem = new Problem("about:blank", "Refused", status, detail, null, null, List.of(mistakes));
        }
    }

    private final HttpServer server;
    private final Map<String, Function<Request, Object>> answers = new ConcurrentHashMap<>();
    private final List<Request> requests = new CopyOnWriteArrayList<>();

    public StandIn() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::handle);
        server.start();
    }

    public String url() {
        return "http://" + server.getAddress().getAddress().getHostAddress() + ":"
                + server.getAddress().getPort();
    }

    /** Says how requests for a path, below {@code /api/v1}, are answered. */
    public StandIn answers(String path, Function<Request, Object> answer) {
        answers.put("/api/v1/" + path, answer);
        return this;
    }

    /** What was asked so far, in order. */
    public List<Request> requests() {
        return requests;
    }

    @Override
    public void close() {
        server.stop(0);
    }

    private void handle(HttpExchange exchange) throws IOException {
        String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        boolean isForm = "application/x-www-form-urlencoded"
                .equals(exchange.getRequestHeaders().getFirst("Content-Type"));
        String query = isForm ? body : exchange.getRequestURI().getRawQuery();
        Request request = new Request(
                exchange.getRequestMethod(),
                exchange.getRequestURI().getPath(),
                parameters(query == null ? "" : query),
                body);
        requests.add(request);
        Function<Request, Object> answer = answers.get(request.path());
        try {
            if (answer == null) {
                throw new Refusal(404, "There is nothing at " + request.path() + ".");
            }
            send(exchange, 200, answer.apply(request));
        } catch (Refusal refusal) {
            send(exchange, refusal.problem.status(), refusal.problem);
        }
    }

    private static Map<String, List<String>> parameters(String query) {
        Map<String, List<String>> parameters = new LinkedHashMap<>();
        for (String pair : query.isEmpty() ? new String[0] : query.split("&")) {
            String[] parts = pair.split("=", 2);
            parameters
                    .computeIfAbsent(decoded(parts[0]), _ -> new ArrayList<>())
                    .add(decoded(parts[1]));
        }
        return parameters;
    }

    private static String decoded(String text) {
        return URLDecoder.decode(text, StandardCharsets.UTF_8);
    }

    private static void send(HttpExchange exchange, int status, Object value) throws IOException {
        byte[] json = Service.JSON.writeValueAsBytes(value);
        exchange.getResponseHeaders()
                .add("Content-Type", status == 200 ? "application/json" : "application/problem+json");
        exchange.sendResponseHeaders(status, json.length);
        exchange.getResponseBody().write(json);
        exchange.close();
    }
}
