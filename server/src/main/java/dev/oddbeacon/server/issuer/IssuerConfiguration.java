package dev.oddbeacon.server.issuer;

import dev.oddbeacon.server.web.WebSafety;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.context.NullSecurityContextRepository;

/** The way back from the issuer: its answer is checked by the library, and becomes a session of ours. */
@Configuration
class IssuerConfiguration {
    @Bean
    @Order(Ordered.HIGHEST_PRECEDENCE)
    SecurityFilterChain wayBack(
            HttpSecurity http, Issuer issuer, PendingSignIns pending, IssuerAnswers answers, SignInAnswer answer)
            throws Exception {
        return WebSafety.headers(http)
                .securityMatcher(Issuer.ANSWER)
                .csrf(AbstractHttpConfigurer::disable) // the state is what protects it
                .sessionManagement(session -> session.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .securityContext(context -> context.securityContextRepository(new NullSecurityContextRepository()))
                .requestCache(AbstractHttpConfigurer::disable)
                .oauth2Login(login -> login.clientRegistrationRepository(issuer)
                        .authorizedClientRepository(answer)
                        .loginProcessingUrl(Issuer.ANSWER)
                        .loginPage("/sign-in")
                        .authorizationEndpoint(endpoint -> endpoint.authorizationRequestRepository(pending))
                        .tokenEndpoint(endpoint -> endpoint.accessTokenResponseClient(answers.codes()))
                        .userInfoEndpoint(endpoint -> endpoint.oidcUserService(answers.people()))
                        .successHandler(answer)
                        .failureHandler(answer))
                .authorizeHttpRequests(requests -> requests.anyRequest().denyAll())
                .build();
    }
}
