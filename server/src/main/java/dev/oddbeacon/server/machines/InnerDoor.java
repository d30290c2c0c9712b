package dev.oddbeacon.server.machines;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.machines.Request.Answer;
import dev.oddbeacon.server.secrets.Secrets;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.catalina.connector.Connector;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;

/**
 * The HTTP interface once more, at a port of loopback that only this process enters, with a secret: what other machines
 * ask, it asks there. Without a cluster there is none.
 */
@Component
class InnerDoor implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {
    private static final List<String> KEPT = List.of(HttpHeaders.CONTENT_TYPE, HttpHeaders.RETRY_AFTER);
    private static final Duration GRACE = Duration.ofSeconds(5); // beyond what a search may take
    private static final int MOST_PARAMETERS = 20_000;
    private static final int MOST_BYTES = 16 << 20;

    /** Headers of what comes through it. */
    enum Header {
        SECRET("Oddbeacon-Door"),
        CALLER("Oddbeacon-Caller"),
        SECURE("Oddbeacon-Secure");

        private final String text;

        Header(String text) {
            this.text = text;
        }

        String of(HttpServletRequest request) {
            return request.getHeader(text);
        }
    }

    /** Begins, with a thread of its own, when it is asked first. */
    private static final class Client {
        private static final HttpClient HTTP = HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .executor(Runnable::run) // nothing is handed over to another thread: an answer is only collected
                .build();
    }

    private final String secret = Secrets.random();
    private final Optional<Connector> connector; // in a cluster
    private final Duration longest;

    InnerDoor(Settings settings) {
        this.connector = settings.cluster().isOn() ? Optional.of(connector()) : Optional.empty();
        this.longest = settings.searchTime().plus(GRACE);
    }

    private static Connector connector() {
        Connector connector = new Connector();
        connector.setProperty("address", InetAddress.getLoopbackAddress().getHostAddress());
        connector.setPort(0);
        connector.setMaxParameterCount(MOST_PARAMETERS);
        connector.setMaxPostSize(MOST_BYTES);
        return connector;
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        connector.ifPresent(factory::addAdditionalConnectors);
    }

    /** Whether a request came to this port. */
    boolean isOf(HttpServletRequest request) {
        return connector.isPresent()
                && request.getLocalPort() == connector.get().getLocalPort();
    }

    /** Whether it came from this process. */
    boolean isOurs(HttpServletRequest request) {
        return secret.equals(Header.SECRET.of(request));
    }

    /** Asks this machine. */
    Answer ask(Request request) throws IOException, InterruptedException {
        String address = "http://" + InetAddress.getLoopbackAddress().getHostAddress() + ":"
                + connector.orElseThrow().getLocalPort();
        HttpRequest.Builder asked = HttpRequest.newBuilder(URI.create(address + request.path()))
                .timeout(longest)
                .header(Header.SECRET.text, secret)
                .header(Header.CALLER.text, request.caller())
                .header(Header.SECURE.text, Boolean.toString(request.isSecure()))
                .header("Sec-Fetch-Site", "same-origin") // the machine that passes it on has seen to it
                .header(HttpHeaders.CONTENT_TYPE, MediaType.APPLICATION_FORM_URLENCODED_VALUE)
                .POST(HttpRequest.BodyPublishers.ofString(request.form()));
        request.headers().forEach(asked::header);
        HttpResponse<String> answer =
                Client.HTTP.send(asked.build(), HttpResponse.BodyHandlers.ofString(StandardCharsets.UTF_8));
        Map<String, String> headers = new LinkedHashMap<>();
        KEPT.forEach(name -> answer.headers().firstValue(name).ifPresent(value -> headers.put(name, value)));
        return new Answer(answer.statusCode(), headers, answer.body());
    }
}
