package dev.oddbeacon.server.web;

import dev.oddbeacon.server.Settings;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.config.ObjectPostProcessor;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.observation.SecurityObservationSettings;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.header.HeaderWriterFilter;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * What protects a service that listens on loopback without asking who is there: pages of other sites must not reach
 * it through the browser. The Host header must name this machine (a foreign name that resolves to 127.0.0.1 is
 * refused), and a write must come from our own pages or from no page at all.
 */
@Configuration
public class WebSafety {
    private static final Set<String> READS = Set.of("GET", "HEAD", "OPTIONS");
    private static final String CONTENT_SECURITY_POLICY =
            "default-src 'none'; script-src 'self'; style-src 'self' 'unsafe-inline'; font-src 'self'; "
                    + "img-src 'self' data:; connect-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

    /**
     * Headers are written before a request is answered: after it, a stream of events may be written by its own thread
     * already, and an answer is nothing that two threads may touch.
     */
    private static final ObjectPostProcessor<HeaderWriterFilter> BEFORE_THE_ANSWER = new ObjectPostProcessor<>() {
        @Override
        public <F extends HeaderWriterFilter> F postProcess(F filter) {
            filter.setShouldWriteHeadersEagerly(true);
            return filter;
        }
    };

    /** Whether a request changes nothing, by its method. */
    public static boolean isRead(HttpServletRequest request) {
        return READS.contains(request.getMethod());
    }

    /** The headers of every answer. */
    public static HttpSecurity headers(HttpSecurity http) {
        return http.headers(headers -> headers.withObjectPostProcessor(BEFORE_THE_ANSWER)
                .contentSecurityPolicy(policy -> policy.policyDirectives(CONTENT_SECURITY_POLICY))
                .referrerPolicy(referrer -> referrer.policy(
                        org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy
                                .NO_REFERRER))
                .cacheControl(cache -> cache.disable()));
    }

    /** Observing each filter of the chain would take longer than the chain does. */
    @Bean
    SecurityObservationSettings observations() {
        return SecurityObservationSettings.noObservations();
    }

    /** Who signs in is known to {@code accounts}, not to the framework. */
    @Bean
    UserDetailsService nobody() {
        return new InMemoryUserDetailsManager();
    }

    @Component
    @Order(Ordered.HIGHEST_PRECEDENCE + 1) // after requests have got their ids
    static class OwnPagesOnly extends OncePerRequestFilter {
        private static final Set<String> LOOPBACK = Set.of("127.0.0.1", "localhost", "[::1]");

        private final Set<String> hosts;

        OwnPagesOnly(Settings settings) {
            Set<String> all = new HashSet<>(LOOPBACK);
            settings.names().forEach(name -> all.add(name.toLowerCase(Locale.ROOT)));
            this.hosts = Set.copyOf(all);
        }

        @Override
        protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
                throws ServletException, IOException {
            String host = request.getHeader("Host");
            if (host == null || !hosts.contains(withoutPort(host.toLowerCase(Locale.ROOT)))) {
                Refusal.write(
                        response,
                        HttpStatus.FORBIDDEN,
                        "The Host header is not a name that this service answers to. Use 127.0.0.1 or localhost, or add the name to oddbeacon.names.");
            } else if (!isRead(request) && isForeign(request.getHeader("Origin"), host)) {
                Refusal.write(response, HttpStatus.FORBIDDEN, "A page of another site may not change anything here.");
            } else if (isAskedByAnotherSite(request)) {
                Refusal.write(response, HttpStatus.FORBIDDEN, "A page of another site may not ask anything here.");
            } else {
                response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
                if (request.getRequestURI().startsWith("/api/")) {
                    response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
                }
                chain.doFilter(request, response);
            }
        }

        private static String withoutPort(String host) {
            int colon = host.lastIndexOf(':');
            boolean isPort = colon > 0
                    && colon < host.length() - 1
                    && host.substring(colon + 1).chars().allMatch(c -> c >= '0' && c <= '9');
            return isPort ? host.substring(0, colon) : host;
        }

        private static boolean isForeign(String origin, String host) {
            if (origin == null) {
                return false; // not a browser
            }
            try {
                return !host.equals(URI.create(origin).getAuthority());
            } catch (IllegalArgumentException e) {
                return true;
            }
        }

        /** Other sites may link to the console's pages, and nothing else: no scripts, images or frames of ours. */
        private static boolean isAskedByAnotherSite(HttpServletRequest request) {
            String site = request.getHeader("Sec-Fetch-Site");
            boolean isForeign = site != null && !site.equals("same-origin") && !site.equals("none");
            boolean isLink = "navigate".equals(request.getHeader("Sec-Fetch-Mode"))
                    && "document".equals(request.getHeader("Sec-Fetch-Dest"))
                    && request.getMethod().equals("GET")
                    && !request.getRequestURI().startsWith("/api/");
            return isForeign && !isLink;
        }
    }
}
