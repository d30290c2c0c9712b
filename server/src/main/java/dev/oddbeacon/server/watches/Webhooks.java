package dev.oddbeacon.server.watches;

import dev.oddbeacon.git.LocationPolicy;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.web.BadRequestException;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;

/**
 * Sends messages as the Standard Webhooks specification has it: an id, a time and a signature. Nothing is sent to this
 * machine or a private network unless its host is allowed, and nobody is followed elsewhere.
 */
@Component
class Webhooks {
    private static final String PREFIX = "whsec_";
    private static final Duration TIMEOUT = Duration.ofSeconds(15);
    private static final int LONGEST_ADDRESS = 2_000;

    private final LocationPolicy policy;
    private final HttpClient client = HttpClient.newBuilder()
            .connectTimeout(TIMEOUT)
            .followRedirects(HttpClient.Redirect.NEVER)
            .build();

    Webhooks(Settings settings) {
        this.policy = settings.locationPolicy();
    }

    static String newSecret() {
        return PREFIX
                + Base64.getEncoder().encodeToString(Base64.getUrlDecoder().decode(Secrets.random()));
    }

    /** What the secret of a watch is encrypted for. */
    static String purpose(long search, String owner) {
        return "webhook " + search + " " + owner;
    }

    /** @throws BadRequestException if nothing can be sent there */
    void check(String address) {
        if (address.length() > LONGEST_ADDRESS) {
            throw new BadRequestException("The address of a webhook has at most " + LONGEST_ADDRESS + " characters.");
        }
        refusal(address).ifPresent(why -> {
            throw new BadRequestException("Nothing is sent to this webhook: " + why + ".");
        });
    }

    private Optional<String> refusal(String address) {
        try {
            URI uri = new URI(address);
            if (!"https".equalsIgnoreCase(uri.getScheme()) && !"http".equalsIgnoreCase(uri.getScheme())
                    || uri.getHost() == null) {
                return Optional.of("it is no address of http or https");
            }
            if (uri.getUserInfo() != null) {
                return Optional.of("it holds a name or a password; messages are told by their signature");
            }
            return policy.refusal(uri.getHost());
        } catch (URISyntaxException e) {
            return Optional.of("it is no address: " + e.getReason());
        }
    }

    /** Sends a message once. @param id of the message, the same at each attempt */
    Outcome send(String address, String secret, String id, Instant now, String body) {
        Optional<String> refusal = refusal(address);
        if (refusal.isPresent()) {
            return new Outcome(false, "Not sent: " + refusal.get());
        }
        long seconds = now.getEpochSecond();
        HttpRequest request = HttpRequest.newBuilder(URI.create(address))
                .timeout(TIMEOUT)
                .header("Content-Type", "application/json")
                .header("User-Agent", "oddbeacon")
                .header("webhook-id", id)
                .header("webhook-timestamp", Long.toString(seconds))
                .header("webhook-signature", "v1," + signature(secret, id + "." + seconds + "." + body))
                .POST(HttpRequest.BodyPublishers.ofString(body))
                .build();
        try {
            int status =
                    client.send(request, HttpResponse.BodyHandlers.discarding()).statusCode();
            return status >= 200 && status < 300
                    ? new Outcome(true, "Answered with " + status)
                    : new Outcome(
                            false,
                            status >= 300 && status < 400
                                    ? "It leads elsewhere (" + status + "), where nobody is followed"
                                    : "Answered with " + status);
        } catch (IOException e) {
            return new Outcome(
                    false, "Not reached: " + Optional.ofNullable(e.getMessage()).orElse(e.toString()));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return new Outcome(false, "The service stopped");
        }
    }

    static String signature(String secret, String signed) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(Base64.getDecoder().decode(secret.substring(PREFIX.length())), "HmacSHA256"));
            return Base64.getEncoder().encodeToString(mac.doFinal(signed.getBytes(StandardCharsets.UTF_8)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException(e); // every Java has it
        }
    }
}
