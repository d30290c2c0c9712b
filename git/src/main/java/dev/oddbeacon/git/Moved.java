package dev.oddbeacon.git;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;

/**
 * Where a repository at an http(s) address has gone, if its host says that it has moved for good. Only to another path
 * of the same host and port: whoever keeps a repository could send the service elsewhere otherwise, to be shown what they
 * may not see.
 */
final class Moved {
    private static final Set<Integer> FOR_GOOD = Set.of(301, 308);
    private static final Duration LONGEST = Duration.ofSeconds(20);
    /** What Git asks for first; the new address ends with it as well. */
    private static final String REFS = "/info/refs";

    private static final String SERVICE = "?service=git-upload-pack";

    private Moved() {}

    /** The new location. @param location that could not be fetched from */
    static Optional<String> of(Location location, GitTransport transport) {
        Optional<Location.Host> host =
                location.host().filter(known -> !known.scheme().equals("ssh"));
        if (host.isEmpty()) {
            return Optional.empty();
        }
        try (HttpClient client = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NEVER)
                .connectTimeout(LONGEST)
                .build()) {
            transport.policy().check(location);
            URI asked = URI.create(trimmed(location.text()) + REFS + SERVICE);
            HttpRequest.Builder request = HttpRequest.newBuilder(asked).timeout(LONGEST);
            transport
                    .authorization(host.get())
                    .ifPresent(authorization -> request.header("Authorization", authorization));
            HttpResponse<Void> answer = client.send(request.build(), HttpResponse.BodyHandlers.discarding());
            return FOR_GOOD.contains(answer.statusCode())
                    ? answer.headers().firstValue("Location").flatMap(to -> target(host.get(), asked.resolve(to)))
                    : Optional.empty();
        } catch (IOException | IllegalArgumentException | LocationPolicy.ForbiddenException e) {
            return Optional.empty(); // it cannot be reached, which is told anyway
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }

    private static Optional<String> target(Location.Host from, URI to) {
        String path = Optional.ofNullable(to.getRawPath()).orElse("");
        if (!path.endsWith(REFS) || to.getRawUserInfo() != null || to.getHost() == null) {
            return Optional.empty();
        }
        String text = to.getScheme() + "://" + to.getRawAuthority() + path.substring(0, path.length() - REFS.length());
        try {
            return Location.parse(text).host().filter(host -> host.equals(from)).map(_ -> text);
        } catch (RepositoryProblemException e) {
            return Optional.empty();
        }
    }

    private static String trimmed(String text) {
        return text.endsWith("/") ? text.substring(0, text.length() - 1) : text;
    }
}
