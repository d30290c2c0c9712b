package dev.oddbeacon.server.issuer;

import dev.oddbeacon.server.secrets.Vault;
import dev.oddbeacon.server.web.HostCookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Optional;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.web.AuthorizationRequestRepository;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationRequest;
import org.springframework.security.oauth2.core.endpoint.OAuth2ParameterNames;
import org.springframework.security.oauth2.core.endpoint.PkceParameterNames;
import org.springframework.security.oauth2.core.oidc.endpoint.OidcParameterNames;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * People who are on their way to the issuer and back. What is remembered of them lies, encrypted, in a cookie of their
 * browser: no other browser can finish what it has begun, and nothing piles up here.
 */
@Component
class PendingSignIns implements AuthorizationRequestRepository<OAuth2AuthorizationRequest> {
    static final String BACK = "back";
    /** Lax, as all of ours: the way back is a link from another site. */
    private static final HostCookie COOKIE = new HostCookie("oddbeacon-sign-in");

    private static final String PURPOSE = "signing in through the issuer";
    private static final Duration LIFE = Duration.ofMinutes(10);

    private final Issuer issuer;
    private final Vault vault;
    private final Clock clock;

    /** As it lies in the cookie. */
    record Pending(String state, String nonce, String verifier, String redirect, String back, long begun) {}

    PendingSignIns(Issuer issuer, Vault vault, Clock clock) {
        this.issuer = issuer;
        this.vault = vault;
        this.clock = clock;
    }

    @Override
    public void saveAuthorizationRequest(
            OAuth2AuthorizationRequest wanted, HttpServletRequest request, HttpServletResponse response) {
        Pending pending = new Pending(
                wanted.getState(),
                wanted.getAttribute(OidcParameterNames.NONCE),
                wanted.getAttribute(PkceParameterNames.CODE_VERIFIER),
                wanted.getRedirectUri(),
                wanted.getAttribute(BACK),
                clock.instant().getEpochSecond());
        byte[] encrypted = vault.encrypt(PURPOSE, JsonMapper.shared().writeValueAsString(pending));
        COOKIE.set(request, response, Base64.getUrlEncoder().withoutPadding().encodeToString(encrypted), LIFE);
    }

    @Override
    public OAuth2AuthorizationRequest loadAuthorizationRequest(HttpServletRequest request) {
        return pending(request)
                .filter(pending -> pending.state().equals(request.getParameter(OAuth2ParameterNames.STATE)))
                .map(this::request)
                .orElse(null);
    }

    @Override
    public OAuth2AuthorizationRequest removeAuthorizationRequest(
            HttpServletRequest request, HttpServletResponse response) {
        OAuth2AuthorizationRequest found = loadAuthorizationRequest(request);
        COOKIE.forget(request, response);
        return found;
    }

    /** Where somebody wanted to go who has come back. */
    String back(HttpServletRequest request) {
        return LocalPath.of(pending(request).map(Pending::back).orElse(null));
    }

    private Optional<Pending> pending(HttpServletRequest request) {
        return COOKIE.of(request)
                .flatMap(PendingSignIns::decoded)
                .flatMap(encrypted -> vault.decrypt(PURPOSE, encrypted))
                .map(json -> JsonMapper.shared().readValue(json, Pending.class))
                .filter(pending -> clock.instant()
                        .isBefore(Instant.ofEpochSecond(pending.begun()).plus(LIFE)));
    }

    private static Optional<byte[]> decoded(String value) {
        try {
            return Optional.of(Base64.getUrlDecoder().decode(value));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private OAuth2AuthorizationRequest request(Pending pending) {
        ClientRegistration registration = issuer.registration();
        return OAuth2AuthorizationRequest.authorizationCode()
                .authorizationUri(registration.getProviderDetails().getAuthorizationUri())
                .clientId(registration.getClientId())
                .redirectUri(pending.redirect())
                .scopes(registration.getScopes())
                .state(pending.state())
                .attributes(attributes -> {
                    attributes.put(OAuth2ParameterNames.REGISTRATION_ID, Issuer.ID);
                    attributes.put(OidcParameterNames.NONCE, pending.nonce());
                    attributes.put(PkceParameterNames.CODE_VERIFIER, pending.verifier());
                })
                .build();
    }
}
