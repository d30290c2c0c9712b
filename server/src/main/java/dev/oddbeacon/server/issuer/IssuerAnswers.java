package dev.oddbeacon.server.issuer;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import org.springframework.http.converter.FormHttpMessageConverter;
import org.springframework.security.oauth2.client.endpoint.OAuth2AccessTokenResponseClient;
import org.springframework.security.oauth2.client.endpoint.OAuth2AuthorizationCodeGrantRequest;
import org.springframework.security.oauth2.client.endpoint.OAuth2RefreshTokenGrantRequest;
import org.springframework.security.oauth2.client.endpoint.RestClientAuthorizationCodeTokenResponseClient;
import org.springframework.security.oauth2.client.endpoint.RestClientRefreshTokenTokenResponseClient;
import org.springframework.security.oauth2.client.http.OAuth2ErrorResponseErrorHandler;
import org.springframework.security.oauth2.client.oidc.authentication.OidcIdTokenDecoderFactory;
import org.springframework.security.oauth2.client.oidc.authentication.OidcIdTokenValidator;
import org.springframework.security.oauth2.client.oidc.userinfo.OidcUserRequest;
import org.springframework.security.oauth2.client.oidc.userinfo.OidcUserService;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.userinfo.DefaultOAuth2UserService;
import org.springframework.security.oauth2.core.DelegatingOAuth2TokenValidator;
import org.springframework.security.oauth2.core.OAuth2AccessToken;
import org.springframework.security.oauth2.core.OAuth2RefreshToken;
import org.springframework.security.oauth2.core.converter.ClaimTypeConverter;
import org.springframework.security.oauth2.core.endpoint.OAuth2AccessTokenResponse;
import org.springframework.security.oauth2.core.http.converter.OAuth2AccessTokenResponseHttpMessageConverter;
import org.springframework.security.oauth2.core.oidc.OidcIdToken;
import org.springframework.security.oauth2.core.oidc.endpoint.OidcParameterNames;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.security.oauth2.jose.jws.SignatureAlgorithm;
import org.springframework.security.oauth2.jwt.Jwt;
import org.springframework.security.oauth2.jwt.JwtDecoder;
import org.springframework.security.oauth2.jwt.JwtDecoderFactory;
import org.springframework.security.oauth2.jwt.JwtTimestampValidator;
import org.springframework.security.oauth2.jwt.NimbusJwtDecoder;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClient;

/** What the issuer answers: tokens, what they say, and what it says again later. */
@Component
class IssuerAnswers implements JwtDecoderFactory<ClientRegistration> {
    private final Issuer issuer;
    private final OidcUserService people = new OidcUserService();
    private final RestClientAuthorizationCodeTokenResponseClient codes =
            new RestClientAuthorizationCodeTokenResponseClient();
    private final RestClientRefreshTokenTokenResponseClient refreshes = new RestClientRefreshTokenTokenResponseClient();
    private final Map<String, JwtDecoder> decoders = new ConcurrentHashMap<>(); // by the address of the keys

    IssuerAnswers(Issuer issuer) {
        this.issuer = issuer;
        DefaultOAuth2UserService userInfo = new DefaultOAuth2UserService();
        userInfo.setRestOperations(issuer.template());
        people.setOauth2UserService(userInfo);
        codes.setRestClient(forTokens());
        refreshes.setRestClient(forTokens());
    }

    private RestClient forTokens() {
        return issuer.clients()
                .configureMessageConverters(converters -> converters
                        .addCustomConverter(new FormHttpMessageConverter())
                        .addCustomConverter(new OAuth2AccessTokenResponseHttpMessageConverter()))
                .defaultStatusHandler(new OAuth2ErrorResponseErrorHandler())
                .build();
    }

    OAuth2AccessTokenResponseClient<OAuth2AuthorizationCodeGrantRequest> codes() {
        return codes;
    }

    OidcUserService people() {
        return people;
    }

    /** Keys are read when they are first needed, and again when a token is signed with one that is not known. */
    @Override
    public JwtDecoder createDecoder(ClientRegistration registration) {
        return decoders.computeIfAbsent(registration.getProviderDetails().getJwkSetUri(), address -> {
            NimbusJwtDecoder decoder = NimbusJwtDecoder.withJwkSetUri(address)
                    .restOperations(issuer.template())
                    .jwsAlgorithms(algorithms -> algorithms.addAll(algorithms(registration)))
                    .build();
            decoder.setJwtValidator(new DelegatingOAuth2TokenValidator<>(
                    new JwtTimestampValidator(), new OidcIdTokenValidator(registration)));
            decoder.setClaimSetConverter(
                    new ClaimTypeConverter(OidcIdTokenDecoderFactory.createDefaultClaimTypeConverters()));
            return decoder;
        });
    }

    /** Those that the issuer says it signs with, where anybody can check and nobody else can sign. */
    private static Set<SignatureAlgorithm> algorithms(ClientRegistration registration) {
        Object told = registration
                .getProviderDetails()
                .getConfigurationMetadata()
                .get("id_token_signing_alg_values_supported");
        List<SignatureAlgorithm> known = told instanceof List<?> names
                ? names.stream()
                        .flatMap(name -> Stream.ofNullable(SignatureAlgorithm.from(String.valueOf(name))))
                        .toList()
                : List.of();
        return known.isEmpty() ? Set.of(SignatureAlgorithm.RS256) : Set.copyOf(known);
    }

    /** What the issuer says now of somebody. @param user its answer @param grant empty if it cannot be asked again */
    record Renewed(OidcUser user, Optional<String> grant) {}

    /**
     * Asks again who somebody is.
     *
     * @param subject as the issuer told it
     * @param grant that it gave the last time
     */
    Renewed again(String subject, String grant) {
        ClientRegistration registration = issuer.registration();
        Instant now = Instant.now();
        OAuth2AccessToken spent = new OAuth2AccessToken(
                OAuth2AccessToken.TokenType.BEARER, "spent", now.minusSeconds(2), now.minusSeconds(1));
        OAuth2AccessTokenResponse response = refreshes.getTokenResponse(
                new OAuth2RefreshTokenGrantRequest(registration, spent, new OAuth2RefreshToken(grant, null)));
        Object told = response.getAdditionalParameters().get(OidcParameterNames.ID_TOKEN);
        OidcIdToken idToken = told == null
                ? new OidcIdToken("none", now, now.plusSeconds(1), Map.of("sub", subject))
                : idToken(registration, String.valueOf(told));
        OidcUser user = people.loadUser(new OidcUserRequest(registration, response.getAccessToken(), idToken));
        return new Renewed(
                user,
                Optional.ofNullable(response.getRefreshToken())
                        .map(OAuth2RefreshToken::getTokenValue)
                        .or(() -> Optional.of(grant)));
    }

    private OidcIdToken idToken(ClientRegistration registration, String token) {
        Jwt jwt = createDecoder(registration).decode(token);
        return new OidcIdToken(jwt.getTokenValue(), jwt.getIssuedAt(), jwt.getExpiresAt(), jwt.getClaims());
    }
}
