package dev.oddbeacon.server.machines;

import dev.oddbeacon.server.web.Refusal;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Requests that come through the inner door: from this process alone, and as their callers sent them elsewhere. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class InnerRequests extends OncePerRequestFilter {
    private final InnerDoor door;

    InnerRequests(InnerDoor door) {
        this.door = door;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!door.isOf(request)) {
            chain.doFilter(request, response);
        } else if (door.isOurs(request)) {
            chain.doFilter(new AsItWasSent(request), response);
        } else {
            Refusal.write(response, HttpStatus.NOT_FOUND, "Nothing is answered here.");
        }
    }

    private static final class AsItWasSent extends HttpServletRequestWrapper {
        AsItWasSent(HttpServletRequest request) {
            super(request);
        }

        @Override
        public String getRemoteAddr() {
            return InnerDoor.Header.CALLER.of((HttpServletRequest) getRequest());
        }

        @Override
        public boolean isSecure() {
            return Boolean.parseBoolean(InnerDoor.Header.SECURE.of((HttpServletRequest) getRequest()));
        }
    }
}
