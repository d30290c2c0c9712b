package dev.oddbeacon.server.load;

import dev.oddbeacon.server.web.Refusal;
import dev.oddbeacon.server.web.TooLargeException;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Limits of what one request may bring: the number and length of its parameters, and its body by kind. Headers, the
 * address with them, are limited to 16 KB by the server itself.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 2)
class RequestLimits extends OncePerRequestFilter {
    private static final int MOST_VALUES = 1_000;
    private static final int MOST_FILES = 10_000;
    private static final int LONGEST_VALUE = 4 << 10;
    private static final int LONGEST_TEXT = 64 << 10; // of "q", which has a limit and a message of its own
    private static final long LARGEST_BODY = 1 << 20;
    private static final String PUSHES = "/api/v1/hooks/push"; // of many commits
    private static final long LARGEST_PUSH = 8 << 20;
    private static final Map<String, Long> LARGEST_BY_TYPE =
            Map.of("text/plain", (8L << 20) + 1, "application/x-www-form-urlencoded", 16L << 20);

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (request.getRequestURI().length() > LONGEST_VALUE) {
            Refusal.write(
                    response,
                    HttpStatus.URI_TOO_LONG,
                    "The path of the address has more than " + LONGEST_VALUE + " characters. Shorten it.");
            return;
        }
        long most = largestBody(request);
        if (request.getContentLengthLong() > most) {
            Refusal.write(response, HttpStatus.CONTENT_TOO_LARGE, tooLarge(most));
            return;
        }
        HttpServletRequest bounded = new Bounded(request, most);
        Optional<String> complaint = complaint(request);
        if (complaint.isPresent()) {
            Refusal.write(response, HttpStatus.BAD_REQUEST, complaint.get());
            return;
        }
        chain.doFilter(bounded, response);
    }

    private static String tooLarge(long most) {
        return "The body has more than " + (most >> 10) + " KiB. Send less at a time.";
    }

    private static long largestBody(HttpServletRequest request) {
        if (request.getRequestURI().equals(PUSHES)) {
            return LARGEST_PUSH;
        }
        String type = Optional.ofNullable(request.getContentType()).orElse("").toLowerCase(Locale.ROOT);
        return LARGEST_BY_TYPE.entrySet().stream()
                .filter(entry -> type.startsWith(entry.getKey()))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(LARGEST_BODY);
    }

    private static Optional<String> complaint(HttpServletRequest request) {
        Map<String, String[]> parameters;
        try {
            parameters = request.getParameterMap();
        } catch (IllegalStateException e) { // what Tomcat throws for parameters that cannot be read
            return Optional.of(
                    "The parameters cannot be read: they must be UTF-8, encoded with %, at most 20000 of them.");
        }
        for (Map.Entry<String, String[]> entry : parameters.entrySet()) {
            String name = entry.getKey();
            int most = name.equals("file") ? MOST_FILES : MOST_VALUES;
            if (entry.getValue().length > most) {
                return Optional.of(shown(name) + " is given " + entry.getValue().length + " times; at most " + most
                        + " are taken. Search in several steps.");
            }
            int longest = name.equals("q") ? LONGEST_TEXT : LONGEST_VALUE;
            for (String value : entry.getValue()) {
                if (value.length() > longest) {
                    return Optional.of(shown(name) + " has " + value.length() + " characters; at most " + longest
                            + " are taken. Shorten it.");
                }
            }
        }
        return Optional.empty();
    }

    private static String shown(String name) {
        return name.length() > 40 ? "A parameter" : name;
    }

    /** A request whose body ends in an error where it grows beyond its limit, whatever length it announced. */
    private static final class Bounded extends HttpServletRequestWrapper {
        private final long most;

        Bounded(HttpServletRequest request, long most) {
            super(request);
            this.most = most;
        }

        @Override
        public ServletInputStream getInputStream() throws IOException {
            ServletInputStream in = super.getInputStream();
            return new ServletInputStream() {
                private long read;

                private int counted(int bytes) {
                    read += Math.max(0, bytes);
                    if (read > most) {
                        throw new TooLargeException(tooLarge(most));
                    }
                    return bytes;
                }

                @Override
                public int read() throws IOException {
                    int b = in.read();
                    counted(b < 0 ? 0 : 1);
                    return b;
                }

                @Override
                public int read(byte[] buffer, int offset, int length) throws IOException {
                    return counted(in.read(buffer, offset, length));
                }

                @Override
                public boolean isFinished() {
                    return in.isFinished();
                }

                @Override
                public boolean isReady() {
                    return in.isReady();
                }

                @Override
                public void setReadListener(ReadListener listener) {
                    in.setReadListener(listener);
                }
            };
        }
    }
}
