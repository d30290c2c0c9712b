package dev.oddbeacon.server.health;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.WarmUp;
import jakarta.servlet.AsyncEvent;
import jakarta.servlet.AsyncListener;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.HexFormat;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ThreadLocalRandom;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Gives each request an id, which its answer carries in the header {@code Request-Id} and log lines about it name: that
 * of the trace it belongs to (W3C Trace Context, header {@code traceparent}), or a new one of the same form. Searches are
 * timed, and those that are slow or fail are logged: by id, not by what was searched for.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class RequestIds extends OncePerRequestFilter {
    static final String HEADER = "Request-Id";
    private static final Logger LOG = LoggerFactory.getLogger(RequestIds.class);
    private static final String SEARCHES = "/api/v1/search/";
    private static final Set<String> SUBJECTS = Set.of("lines", "files", "symbols", "commits");
    private static final int TRACE_BYTES = 16;
    private static final int TRACE_START = 3; // version, dash, id of the trace, dash, id of the parent, dash, flags
    private static final int TRACE_END = TRACE_START + 2 * TRACE_BYTES;
    private static final int CALLERS_ERROR = 400;
    private static final int SERVER_ERROR = 500;

    private final SearchTimes times;
    private final Duration slow;

    RequestIds(SearchTimes times, Settings settings) {
        this.times = times;
        this.slow = settings.log().slow();
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        long start = System.nanoTime();
        String id = trace(request).orElseGet(RequestIds::random);
        response.setHeader(HEADER, id);
        MDC.put("request", id);
        try {
            chain.doFilter(request, response);
        } finally {
            if (request.isAsyncStarted()) {
                request.getAsyncContext().addListener(new AtTheEnd(() -> ended(request, response, id, start)));
            } else {
                ended(request, response, id, start);
            }
            MDC.remove("request");
        }
    }

    private static Optional<String> trace(HttpServletRequest request) {
        return Optional.ofNullable(request.getHeader("traceparent"))
                .filter(header -> header.length() > TRACE_END
                        && header.charAt(TRACE_START - 1) == '-'
                        && header.charAt(TRACE_END) == '-')
                .map(header -> header.substring(TRACE_START, TRACE_END))
                .filter(id -> id.chars().allMatch(c -> c >= '0' && c <= '9' || c >= 'a' && c <= 'f'))
                .filter(id -> id.chars().anyMatch(c -> c != '0'));
    }

    private static String random() {
        byte[] id = new byte[TRACE_BYTES];
        ThreadLocalRandom.current().nextBytes(id);
        return HexFormat.of().formatHex(id);
    }

    private void ended(HttpServletRequest request, HttpServletResponse response, String id, long start) {
        Duration took = Duration.ofNanos(System.nanoTime() - start);
        boolean failed = response.getStatus() >= SERVER_ERROR;
        String path = request.getRequestURI();
        boolean isSearch = path.startsWith(SEARCHES) && !WarmUp.hasTrace(id);
        if (isSearch && (failed || response.getStatus() < CALLERS_ERROR)) {
            times.add(subject(path), failed, took);
        }
        if (path.startsWith("/api/") && (failed || isSearch && took.compareTo(slow) > 0)) {
            LOG.info(
                    "{} {} answered {} after {} ms, request {}",
                    request.getMethod(),
                    path,
                    response.getStatus(),
                    took.toMillis(),
                    id);
        }
    }

    private static String subject(String path) {
        int end = path.indexOf('/', SEARCHES.length());
        String word = path.substring(SEARCHES.length(), end < 0 ? path.length() : end);
        return SUBJECTS.contains(word) ? word : "other";
    }

    private record AtTheEnd(Runnable action) implements AsyncListener {
        @Override
        public void onComplete(AsyncEvent event) {
            action.run();
        }

        @Override
        public void onTimeout(AsyncEvent event) {
            // it completes
        }

        @Override
        public void onError(AsyncEvent event) {
            // it completes
        }

        @Override
        public void onStartAsync(AsyncEvent event) {
            event.getAsyncContext().addListener(this);
        }
    }
}
