package dev.oddbeacon.server.issuer;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.accounts.Identity;
import java.net.http.HttpClient;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.core.ParameterizedTypeReference;
import org.springframework.http.client.JdkClientHttpRequestFactory;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.registration.ClientRegistrationRepository;
import org.springframework.security.oauth2.client.registration.ClientRegistrations;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestClientException;
import org.springframework.web.client.RestTemplate;

/**
 * The issuer of OpenID Connect that people sign in through, as its discovery document describes it. The document is read
 * when it is first needed, and again after an hour: the service starts while the issuer is down.
 */
@Component
class Issuer implements ClientRegistrationRepository {
    static final String ID = "issuer";
    static final String ANSWER = "/sign-in/answer";
    private static final String DISCOVERY = "/.well-known/openid-configuration";
    private static final Duration PATIENCE = Duration.ofSeconds(5);
    private static final Duration FRESH = Duration.ofHours(1);

    private final Settings.Issuer settings;
    private final Clock clock;
    private final JdkClientHttpRequestFactory connections;
    private final RestClient client;
    private Optional<ClientRegistration> registration = Optional.empty(); // guarded by this
    private Instant read = Instant.MIN; // guarded by this

    Issuer(Settings settings, Clock clock) {
        this.settings = settings.issuer();
        this.clock = clock;
        this.connections = new JdkClientHttpRequestFactory(HttpClient.newBuilder()
                .connectTimeout(PATIENCE)
                .followRedirects(HttpClient.Redirect.NEVER)
                .build());
        this.connections.setReadTimeout(PATIENCE);
        this.client = RestClient.builder().requestFactory(connections).build();
    }

    boolean isConfigured() {
        return !settings.address().isEmpty();
    }

    /** For requests that wait for the issuer, and not for long. */
    RestTemplate template() {
        return new RestTemplate(connections);
    }

    /** For requests that wait for the issuer, and not for long. */
    RestClient.Builder clients() {
        return RestClient.builder().requestFactory(connections);
    }

    @Override
    public ClientRegistration findByRegistrationId(String id) {
        return registration();
    }

    /** @throws IssuerGoneException if it does not answer */
    synchronized ClientRegistration registration() {
        Instant now = clock.instant();
        if (registration.isEmpty() || now.isAfter(read.plus(FRESH))) {
            try {
                registration = Optional.of(discover());
                read = now;
            } catch (IssuerGoneException e) {
                if (registration.isEmpty()) {
                    throw e;
                }
                read = now.minus(FRESH).plus(PATIENCE.multipliedBy(6)); // what it was holds until it answers
            }
        }
        return registration.get();
    }

    private ClientRegistration discover() {
        String address = withoutSlash(settings.address());
        Map<String, Object> document;
        try {
            document = client.get()
                    .uri(address + DISCOVERY)
                    .retrieve()
                    .body(new ParameterizedTypeReference<Map<String, Object>>() {});
        } catch (RestClientException e) {
            throw new IssuerGoneException(address + DISCOVERY + " cannot be read: " + e.getMessage(), e);
        }
        if (document == null
                || !withoutSlash(String.valueOf(document.get("issuer"))).equals(address)) {
            throw new IssuerGoneException(address + DISCOVERY + " does not name this issuer.");
        }
        try {
            return ClientRegistrations.fromOidcConfiguration(document)
                    .registrationId(ID)
                    .clientId(settings.client())
                    .clientSecret(settings.secret())
                    .scope(settings.scopes())
                    .redirectUri("{baseUrl}" + ANSWER)
                    .userNameAttributeName("sub")
                    .clientSettings(ClientRegistration.ClientSettings.builder()
                            .requireProofKey(true)
                            .build())
                    .build();
        } catch (IllegalArgumentException e) {
            throw new IssuerGoneException(address + DISCOVERY + " is not what it should be: " + e.getMessage(), e);
        }
    }

    private static String withoutSlash(String address) {
        return address.endsWith("/") ? address.substring(0, address.length() - 1) : address;
    }

    /** What the issuer has said of somebody. */
    Identity identity(OidcUser user) {
        Object groups = user.getClaims().get(settings.groupsClaim());
        Optional<List<String>> told = switch (groups) {
            case List<?> list -> Optional.of(list.stream().map(String::valueOf).toList());
            case String one -> Optional.of(List.of(one));
            case null, default -> Optional.empty();
        };
        return new Identity(
                subject(user.getSubject()),
                Optional.ofNullable(user.getClaims().get(settings.nameClaim()))
                        .map(String::valueOf)
                        .orElse(""),
                Optional.ofNullable(user.getFullName()),
                told.map(names -> names.stream().limit(10_000).collect(Collectors.toList())));
    }

    /** Who somebody is among all people of all issuers. */
    private String subject(String id) {
        return settings.address() + " " + id;
    }

    /** Who somebody is at the issuer. */
    static String id(String subject) {
        return subject.substring(subject.indexOf(' ') + 1);
    }
}
