package dev.oddbeacon.e2e;

import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.source.JWKSource;
import com.nimbusds.jose.proc.SecurityContext;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.ServerSocket;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.NoSuchAlgorithmException;
import java.security.interfaces.RSAPrivateKey;
import java.security.interfaces.RSAPublicKey;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.SpringBootConfiguration;
import org.springframework.boot.autoconfigure.ImportAutoConfiguration;
import org.springframework.boot.http.converter.autoconfigure.HttpMessageConvertersAutoConfiguration;
import org.springframework.boot.jackson.autoconfigure.JacksonAutoConfiguration;
import org.springframework.boot.security.autoconfigure.SecurityAutoConfiguration;
import org.springframework.boot.security.autoconfigure.web.servlet.SecurityFilterAutoConfiguration;
import org.springframework.boot.tomcat.autoconfigure.servlet.TomcatServletWebServerAutoConfiguration;
import org.springframework.boot.webmvc.autoconfigure.DispatcherServletAutoConfiguration;
import org.springframework.boot.webmvc.autoconfigure.WebMvcAutoConfiguration;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.core.annotation.Order;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configuration.EnableWebSecurity;
import org.springframework.security.config.annotation.web.configuration.OAuth2AuthorizationServerConfiguration;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.annotation.web.configurers.oauth2.server.authorization.OAuth2AuthorizationServerConfigurer;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.oauth2.core.AuthorizationGrantType;
import org.springframework.security.oauth2.core.ClientAuthenticationMethod;
import org.springframework.security.oauth2.core.oidc.OidcUserInfo;
import org.springframework.security.oauth2.core.oidc.endpoint.OidcParameterNames;
import org.springframework.security.oauth2.jwt.JwtDecoder;
import org.springframework.security.oauth2.server.authorization.InMemoryOAuth2AuthorizationService;
import org.springframework.security.oauth2.server.authorization.OAuth2Authorization;
import org.springframework.security.oauth2.server.authorization.OAuth2AuthorizationService;
import org.springframework.security.oauth2.server.authorization.OAuth2TokenType;
import org.springframework.security.oauth2.server.authorization.client.InMemoryRegisteredClientRepository;
import org.springframework.security.oauth2.server.authorization.client.RegisteredClient;
import org.springframework.security.oauth2.server.authorization.client.RegisteredClientRepository;
import org.springframework.security.oauth2.server.authorization.settings.AuthorizationServerSettings;
import org.springframework.security.oauth2.server.authorization.settings.ClientSettings;
import org.springframework.security.oauth2.server.authorization.settings.TokenSettings;
import org.springframework.security.oauth2.server.authorization.token.JwtEncodingContext;
import org.springframework.security.oauth2.server.authorization.token.OAuth2TokenCustomizer;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;

/**
 * An issuer of OpenID Connect, as teams have one: a real implementation, with people, groups and faults that a test
 * chooses. Everybody's password there is {@value #PASSWORD}.
 */
final class StandInIssuer implements AutoCloseable {
    static final String PASSWORD = "at the issuer";
    static final String CLIENT = "oddbeacon";
    static final String SECRET = "given by the issuer";

    /** What is wrong with the tokens that it gives. */
    enum Fault {
        NONE,
        WRONG_AUDIENCE,
        EXPIRED,
        OTHER_NONCE
    }

    private static final Map<String, List<String>> PEOPLE = new ConcurrentHashMap<>();
    private static volatile Fault fault = Fault.NONE;
    private static volatile RSAKey key = newKey();
    private static volatile String redirect = "";
    private static final Map<String, OAuth2Authorization> GIVEN = new ConcurrentHashMap<>();

    private final int port;
    private ConfigurableApplicationContext context;

    private StandInIssuer(int port) {
        this.port = port;
    }

    /** @param redirect where people may be sent back to */
    static StandInIssuer start(String redirect) {
        StandInIssuer.redirect = redirect;
        StandInIssuer issuer = new StandInIssuer(freePort());
        issuer.up();
        return issuer;
    }

    static int freePort() {
        try (ServerSocket probe = new ServerSocket(0)) {
            return probe.getLocalPort();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    String address() {
        return "http://localhost:" + port;
    }

    /** Somebody who is known there. */
    static void put(String name, String... groups) {
        PEOPLE.put(name, List.of(groups));
    }

    /** Somebody leaves: nobody of that name signs in, and what was given is taken back. */
    static void leave(String name) {
        PEOPLE.remove(name);
        GIVEN.values().removeIf(given -> given.getPrincipalName().equals(name));
    }

    static void fault(Fault wanted) {
        fault = wanted;
    }

    static void changeKey() {
        key = newKey();
    }

    void up() {
        SpringApplication application = new SpringApplication(Configuration.class);
        context = application.run(
                "--spring.config.name=stand-in",
                "--spring.main.banner-mode=off",
                "--server.port=" + port,
                "--logging.level.root=warn",
                "--stand-in.address=" + address());
    }

    void down() {
        context.close();
    }

    @Override
    public void close() {
        down();
    }

    private static RSAKey newKey() {
        try {
            KeyPairGenerator generator = KeyPairGenerator.getInstance("RSA");
            generator.initialize(2048);
            KeyPair pair = generator.generateKeyPair();
            return new RSAKey.Builder((RSAPublicKey) pair.getPublic())
                    .privateKey((RSAPrivateKey) pair.getPrivate())
                    .keyID(UUID.randomUUID().toString())
                    .build();
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }

    @SpringBootConfiguration
    @EnableWebSecurity
    @ImportAutoConfiguration({
        TomcatServletWebServerAutoConfiguration.class,
        DispatcherServletAutoConfiguration.class,
        WebMvcAutoConfiguration.class,
        JacksonAutoConfiguration.class,
        HttpMessageConvertersAutoConfiguration.class,
        SecurityAutoConfiguration.class,
        SecurityFilterAutoConfiguration.class
    })
    static class Configuration {
        @Bean
        @Order(1)
        SecurityFilterChain protocol(HttpSecurity http) throws Exception {
            OAuth2AuthorizationServerConfigurer server = new OAuth2AuthorizationServerConfigurer();
            return http.securityMatcher(server.getEndpointsMatcher())
                    .with(
                            server,
                            configured -> configured.oidc(oidc -> oidc.userInfoEndpoint(
                                    endpoint -> endpoint.userInfoMapper(context -> new OidcUserInfo(
                                            claims(context.getAuthorization().getPrincipalName()))))))
                    .authorizeHttpRequests(requests -> requests.anyRequest().authenticated())
                    .exceptionHandling(
                            refused -> refused.authenticationEntryPoint(new LoginUrlAuthenticationEntryPoint("/login")))
                    .build();
        }

        @Bean
        @Order(2)
        SecurityFilterChain people(HttpSecurity http) throws Exception {
            return http.csrf(AbstractHttpConfigurer::disable)
                    .authorizeHttpRequests(requests -> requests.anyRequest().authenticated())
                    .formLogin(Customizer.withDefaults())
                    .build();
        }

        @Bean
        UserDetailsService known() {
            return name -> {
                if (!PEOPLE.containsKey(name)) {
                    throw new UsernameNotFoundException(name);
                }
                return User.withUsername(name)
                        .password("{noop}" + PASSWORD)
                        .authorities("person")
                        .build();
            };
        }

        @Bean
        RegisteredClientRepository clients() {
            return new InMemoryRegisteredClientRepository(RegisteredClient.withId(CLIENT)
                    .clientId(CLIENT)
                    .clientSecret("{noop}" + SECRET)
                    .clientAuthenticationMethod(ClientAuthenticationMethod.CLIENT_SECRET_BASIC)
                    .authorizationGrantType(AuthorizationGrantType.AUTHORIZATION_CODE)
                    .authorizationGrantType(AuthorizationGrantType.REFRESH_TOKEN)
                    .redirectUri(redirect)
                    .scope("openid")
                    .scope("profile")
                    .scope("email")
                    .clientSettings(
                            ClientSettings.builder().requireProofKey(true).build())
                    .tokenSettings(TokenSettings.builder()
                            .accessTokenTimeToLive(Duration.ofMinutes(5))
                            .reuseRefreshTokens(false)
                            .build())
                    .build());
        }

        /** Kept over its restarts, as one with a database would. */
        @Bean
        OAuth2AuthorizationService given() {
            InMemoryOAuth2AuthorizationService memory = new InMemoryOAuth2AuthorizationService();
            GIVEN.values().forEach(memory::save);
            return new OAuth2AuthorizationService() {
                @Override
                public void save(OAuth2Authorization authorization) {
                    GIVEN.put(authorization.getId(), authorization);
                    memory.save(authorization);
                }

                @Override
                public void remove(OAuth2Authorization authorization) {
                    GIVEN.remove(authorization.getId());
                    memory.remove(authorization);
                }

                @Override
                public OAuth2Authorization findById(String id) {
                    return GIVEN.get(id);
                }

                @Override
                public OAuth2Authorization findByToken(String token, OAuth2TokenType type) {
                    OAuth2Authorization found = memory.findByToken(token, type);
                    return found != null && GIVEN.containsKey(found.getId()) ? found : null;
                }
            };
        }

        @Bean
        JWKSource<SecurityContext> keys() {
            return (selector, _) -> selector.select(new JWKSet(key));
        }

        @Bean
        JwtDecoder ownTokens(JWKSource<SecurityContext> keys) {
            return OAuth2AuthorizationServerConfiguration.jwtDecoder(keys);
        }

        @Bean
        AuthorizationServerSettings settings(
                @org.springframework.beans.factory.annotation.Value("${stand-in.address}") String address) {
            return AuthorizationServerSettings.builder().issuer(address).build();
        }

        @Bean
        OAuth2TokenCustomizer<JwtEncodingContext> faults() {
            return context -> {
                if (!context.getTokenType().getValue().equals(OidcParameterNames.ID_TOKEN)) {
                    return;
                }
                context.getClaims()
                        .claims(claims ->
                                claims.putAll(claims(context.getPrincipal().getName())));
                switch (fault) {
                    case NONE -> {}
                    case WRONG_AUDIENCE -> context.getClaims().audience(List.of("another service"));
                    case EXPIRED ->
                        context.getClaims()
                                .issuedAt(Instant.now().minusSeconds(7_200))
                                .expiresAt(Instant.now().minusSeconds(3_600));
                    case OTHER_NONCE -> context.getClaims().claim("nonce", "another");
                }
            };
        }

        private static Map<String, Object> claims(String name) {
            return Map.of(
                    "sub",
                    "id of " + name,
                    "preferred_username",
                    name + "@quillhaven.example",
                    "name",
                    name.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + name.substring(1) + " Example",
                    "groups",
                    PEOPLE.getOrDefault(name, List.of()));
        }
    }
}
