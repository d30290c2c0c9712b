package dev.oddbeacon.server.access;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.server.web.Refusal;
import dev.oddbeacon.server.web.WebSafety;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Arrays;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.AbstractHttpConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.access.intercept.AuthorizationFilter;

/**
 * Who may send which requests. The first row that a request matches decides, and what matches none is refused. Which
 * repositories an answer is about is decided elsewhere: {@link Visibility}.
 */
@Configuration
class Permissions {
    /** Somebody with an account, or anybody where there are none. */
    static final String PERSON = "PERSON";

    /** A maintainer's token for some repositories: it may have those refreshed, and changes nothing else. */
    static final String OF_SOME = "MAINTAINER_OF_SOME";

    @Bean
    SecurityFilterChain chain(HttpSecurity http, Callers callers, Quotas quotas) throws Exception {
        String reader = Role.READER.name();
        String maintainer = Role.MAINTAINER.name();
        String administrator = Role.ADMINISTRATOR.name();
        return WebSafety.headers(http)
                .csrf(AbstractHttpConfigurer::disable) // the filters refuse what it would
                .sessionManagement(session -> session.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
                .requestCache(AbstractHttpConfigurer::disable)
                .logout(AbstractHttpConfigurer::disable)
                .addFilterBefore(new CallerFilter(callers, quotas), AuthorizationFilter.class)
                .authorizeHttpRequests(requests -> requests
                        // what a request that was let in has led to
                        .dispatcherTypeMatchers(DispatcherType.ASYNC, DispatcherType.ERROR, DispatcherType.FORWARD)
                        .permitAll()
                        // signing in
                        .requestMatchers(
                                "/api/v1/session",
                                "/api/v1/session/first",
                                "/api/v1/session/device",
                                "/api/v1/session/device/token")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/actuator/health")
                        .permitAll()
                        // told by a signature, or an address that nobody can guess
                        .requestMatchers(HttpMethod.POST, "/api/v1/hooks/push")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/v1/feeds/*")
                        .permitAll()
                        // one's own
                        .requestMatchers(
                                "/api/v1/session/all",
                                "/api/v1/session/device/decision",
                                "/api/v1/tokens",
                                "/api/v1/tokens/*",
                                "/api/v1/desk",
                                "/api/v1/desk/*",
                                "/api/v1/saved-searches",
                                "/api/v1/saved-searches/*",
                                "/api/v1/saved-searches/*/checks/*",
                                "/api/v1/watches",
                                "/api/v1/watches/**",
                                "/api/v1/worklists",
                                "/api/v1/worklists/**")
                        .hasRole(PERSON)
                        .requestMatchers(Permissions::isAboutOwnSets)
                        .hasRole(PERSON)
                        // keeping the service
                        .requestMatchers(
                                "/api/v1/accounts/**",
                                "/api/v1/records-of-change/**",
                                "/api/v1/rosters/**",
                                "/api/v1/health",
                                "/api/v1/machines/**",
                                "/api/v1/metrics",
                                "/actuator/**")
                        .hasRole(administrator)
                        .requestMatchers(HttpMethod.POST, "/api/v1/status/verify")
                        .hasRole(administrator)
                        // getting at private repositories
                        .requestMatchers("/api/v1/credentials/**")
                        .hasRole(maintainer)
                        // who sees a repository
                        .requestMatchers("/api/v1/teams", "/api/v1/repositories/*/viewers")
                        .hasRole(maintainer)
                        .requestMatchers(HttpMethod.POST, "/api/v1/repositories/*/refresh")
                        .hasAnyRole(maintainer, OF_SOME)
                        // searching and reading, also where the question is too long for an address
                        .requestMatchers(HttpMethod.GET, "/api/v1/**")
                        .hasRole(reader)
                        .requestMatchers(HttpMethod.HEAD, "/api/v1/**")
                        .hasRole(reader)
                        .requestMatchers(
                                HttpMethod.POST,
                                "/api/v1/search/**",
                                "/api/v1/places",
                                "/api/v1/archive",
                                "/api/v1/saved-searches/*/comparison",
                                "/api/v1/replacements/*",
                                "/api/v1/shapes",
                                "/api/v1/exclusion-sets/preview")
                        .hasRole(reader)
                        // agents, which only read
                        .requestMatchers("/mcp")
                        .hasRole(reader)
                        // changing what all share
                        .requestMatchers("/api/v1/**")
                        .hasRole(maintainer)
                        // the console, which holds nothing of anybody's
                        .requestMatchers(HttpMethod.GET, "/**")
                        .permitAll()
                        .requestMatchers(HttpMethod.HEAD, "/**")
                        .permitAll()
                        .anyRequest()
                        .denyAll())
                .exceptionHandling(
                        refused -> refused.authenticationEntryPoint((request, response, _) -> refuse(request, response))
                                .accessDeniedHandler((request, response, _) -> refuse(request, response)))
                .build();
    }

    /** Said once, so that nobody after this can read it otherwise. */
    private static boolean isAboutOwnSets(HttpServletRequest request) {
        return request.getRequestURI().startsWith("/api/v1/exclusion-sets/")
                && Arrays.equals(request.getParameterValues("own"), new String[] {"true"});
    }

    private static void refuse(HttpServletRequest request, HttpServletResponse response) throws IOException {
        Caller caller = CallerFilter.of(request);
        if (caller.isForSome()) {
            Refusal.write(
                    response,
                    HttpStatus.FORBIDDEN,
                    "This token is for some repositories, and does not allow this. Use one for all that you see.");
        } else if (caller.account().isPresent()) {
            Refusal.write(response, HttpStatus.FORBIDDEN, "Your role does not allow this. Ask an administrator.");
        } else {
            Refusal.write(
                    response,
                    HttpStatus.UNAUTHORIZED,
                    "Sign in first: in the console, or with a token (Authorization: Bearer).");
        }
    }
}
