package dev.oddbeacon.server;

import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.Visibility;
import dev.oddbeacon.server.catalogue.Registered;
import dev.oddbeacon.server.records.HistoryRecords;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.records.SegmentRecords;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.ReentrantLock;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.context.event.ApplicationEnvironmentPreparedEvent;
import org.springframework.boot.context.logging.LoggingApplicationListener;
import org.springframework.context.ApplicationListener;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Primary;
import org.springframework.core.Ordered;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The service within the tests, with a real MariaDB, called over HTTP. */
public final class TestService implements AutoCloseable {
    private static final HttpClient CLIENT = HttpClient.newHttpClient();
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final ReentrantLock LOG = new ReentrantLock();

    private ConfigurableApplicationContext
            context; // null once it is closed: what classes of tests hold lasts to the end of the run
    private final String address;

    /** Which repositories are hidden from everybody, and how long requests wait: a switch that only tests have. */
    private static final class Switch implements Visibility {
        private final Visibility real;
        private volatile Set<String> hidden = Set.of();
        private volatile Duration delay = Duration.ZERO;

        Switch(Visibility real) {
            this.real = real;
        }

        @Override
        public Sight sight(Caller caller, Registered registered) {
            pause(delay);
            Set<String> unseen = hidden;
            Sight sight = real.sight(caller, registered);
            return new Sight(
                    List.of(sight.key(), unseen),
                    sight.everything(),
                    repository ->
                            !unseen.contains(repository.name()) && sight.sees().test(repository));
        }
    }

    private static void pause(Duration delay) {
        try {
            Thread.sleep(delay);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Services that start at a time set up the log of this process one after another: each empties it first. */
    private record LogTurn(Runnable turn, int getOrder)
            implements ApplicationListener<ApplicationEnvironmentPreparedEvent>, Ordered {
        @Override
        public void onApplicationEvent(ApplicationEnvironmentPreparedEvent event) {
            turn.run();
        }
    }

    /** A clock that tests set otherwise. */
    private static final class Jumping extends Clock {
        private volatile Duration ahead = Duration.ZERO;

        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            throw new UnsupportedOperationException();
        }

        @Override
        public Instant instant() {
            return Instant.now().plus(ahead);
        }
    }

    @Configuration
    static class Beans {
        @Bean
        @Primary
        Visibility visibilityOfTests(@Qualifier("viewing") Visibility real) {
            return new Switch(real);
        }

        @Bean
        @Primary
        Clock clockOfTests() {
            return new Jumping();
        }
    }

    /** An answer, its body as JSON if it is that. */
    public record Answer(int status, String body, JsonNode json, Optional<String> cookie) {
        public String detail() {
            return json.path("detail").asString();
        }
    }

    private TestService(ConfigurableApplicationContext context) {
        this.context = context;
        this.address = "http://127.0.0.1:" + context.getEnvironment().getProperty("local.server.port");
    }

    /** @param database as {@link Database#create} tells it; the same again for a restart */
    public static TestService start(List<String> database, Path data, String... more) {
        List<String> arguments = new ArrayList<>(database);
        arguments.addAll(List.of("--oddbeacon.data=" + data, "--server.port=0", "--logging.level.root=error"));
        arguments.addAll(List.of(more));
        for (String usual : List.of(
                "--oddbeacon.warm-up=false",
                "--oddbeacon.following.enabled=false", // tests say when they ask
                "--oddbeacon.second-looks-time=30s")) { // a machine that is busy must not change an answer
            String name = usual.substring(0, usual.indexOf('=') + 1);
            if (arguments.stream().noneMatch(argument -> argument.startsWith(name))) {
                arguments.add(usual);
            }
        }
        SpringApplication application = ServerMain.application(arguments);
        application.addListeners(new LogTurn(LOG::lock, Ordered.HIGHEST_PRECEDENCE));
        application.addListeners(new LogTurn(LOG::unlock, LoggingApplicationListener.DEFAULT_ORDER + 1));
        try {
            return new TestService(application.run(arguments.toArray(String[]::new)));
        } finally {
            if (LOG.isHeldByCurrentThread()) { // what it was given was refused before its log began
                LOG.unlock();
            }
        }
    }

    /** Where it listens, without a slash at the end. */
    public String address() {
        return address;
    }

    public <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    /** The names of the files of the index that the records name. */
    public Set<String> recordedFiles() {
        Set<String> files = new HashSet<>(bean(SegmentRecords.class).files());
        files.addAll(bean(HistoryRecords.class).files());
        files.addAll(bean(RepositoryRecords.class).snapshotFiles());
        return files;
    }

    public void hide(Set<String> repositories) {
        ((Switch) bean(Visibility.class)).hidden = Set.copyOf(repositories);
    }

    /** Makes the service slow: every request that looks at the index waits first. */
    public void slowDown(Duration delay) {
        ((Switch) bean(Visibility.class)).delay = delay;
    }

    /** Sets the clock of the service. @param ahead of the real one */
    public void setClock(Duration ahead) {
        ((Jumping) bean(Clock.class)).ahead = ahead;
    }

    /** Requests with some headers. */
    public final class Requests {
        private final Map<String, String> headers;

        private Requests(Map<String, String> headers) {
            this.headers = headers;
        }

        /** @param parameters names and values in turn */
        public Answer get(String path, String... parameters) {
            StringBuilder query = new StringBuilder(address + path);
            for (int i = 0; i < parameters.length; i += 2) {
                query.append(i == 0 ? '?' : '&')
                        .append(parameters[i])
                        .append('=')
                        .append(URLEncoder.encode(parameters[i + 1], StandardCharsets.UTF_8));
            }
            return send(HttpRequest.newBuilder(URI.create(query.toString())));
        }

        public Answer post(String path, String type, String body) {
            return send(HttpRequest.newBuilder(URI.create(address + path))
                    .header("Content-Type", type)
                    .POST(HttpRequest.BodyPublishers.ofString(body)));
        }

        /** Posts something as JSON. */
        public Answer post(String path, Object body) {
            return post(path, "application/json", JSON.writeValueAsString(body));
        }

        public Answer put(String path, String body) {
            return send(HttpRequest.newBuilder(URI.create(address + path))
                    .header("Content-Type", "application/json")
                    .PUT(HttpRequest.BodyPublishers.ofString(body)));
        }

        /** Puts something as JSON. */
        public Answer put(String path, Object body) {
            return put(path, JSON.writeValueAsString(body));
        }

        public Answer delete(String path) {
            return send(HttpRequest.newBuilder(URI.create(address + path)).DELETE());
        }

        private Answer send(HttpRequest.Builder request) {
            headers.forEach(request::header);
            try {
                HttpResponse<String> response = CLIENT.send(
                        request.timeout(Duration.ofSeconds(60)).build(), HttpResponse.BodyHandlers.ofString());
                boolean isJson = response.headers()
                        .firstValue("Content-Type")
                        .filter(type -> type.contains("json") && !type.contains("jsonl"))
                        .isPresent();
                return new Answer(
                        response.statusCode(),
                        response.body(),
                        isJson && !response.body().isEmpty() ? JSON.readTree(response.body()) : JSON.nullNode(),
                        response.headers().firstValue("Set-Cookie"));
            } catch (IOException e) {
                throw new IllegalStateException(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException(e);
            }
        }
    }

    /** Somebody who sends these headers with each request. */
    public Requests with(Map<String, String> headers) {
        return new Requests(headers);
    }

    /** A browser of the console: it sends its cookie, and says where it is. */
    public Requests browser(String cookie) {
        return with(Map.of("Cookie", cookie.replaceAll(";.*", ""), "Origin", address));
    }

    public Answer get(String path, String... parameters) {
        return with(Map.of()).get(path, parameters);
    }

    public Answer post(String path, String type, String body) {
        return with(Map.of()).post(path, type, body);
    }

    public Answer put(String path, String body) {
        return with(Map.of()).put(path, body);
    }

    public Answer delete(String path) {
        return with(Map.of()).delete(path);
    }

    /** Registers a repository, and waits until its files and its past can be searched. */
    public TestService add(String name, Path location, String... labels) {
        Answer added = post(
                "/api/v1/repositories",
                "application/json",
                JSON.writeValueAsString(
                        new NewRepository(name, "", location.toString(), List.of(), List.of(labels), null)));
        if (added.status() != 201) {
            throw new IllegalStateException(added.body());
        }
        awaitReady(name);
        return this;
    }

    public void awaitReady(String name) {
        long deadline = System.nanoTime() + Duration.ofSeconds(60).toNanos();
        while (true) {
            JsonNode repository = get("/api/v1/repositories/" + name).json();
            boolean isReady = repository.path("state").asString().equals("ready")
                    && repository.path("history").path("complete").asBoolean();
            if (isReady
                    && get("/api/v1/search/commits", "repo", name)
                            .json()
                            .path("index")
                            .path("complete")
                            .asBoolean()) {
                return;
            }
            if (System.nanoTime() > deadline) {
                throw new IllegalStateException("not ready: " + repository);
            }
            try {
                Thread.sleep(20);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return;
            }
        }
    }

    @Override
    public void close() {
        context.close();
        context = null;
    }
}
