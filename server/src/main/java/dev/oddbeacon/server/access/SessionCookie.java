package dev.oddbeacon.server.access;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.http.ResponseCookie;

/**
 * The cookie that a browser's session is known by. Over TLS its name binds it to this host and to secure connections;
 * on loopback, where there is no TLS, browsers would not take such a name.
 */
final class SessionCookie {
    private static final String NAME = "oddbeacon-session";

    private SessionCookie() {}

    private static String name(HttpServletRequest request) {
        return request.isSecure() ? "__Host-" + NAME : NAME;
    }

    /** The session that a browser has sent. */
    static Optional<String> of(HttpServletRequest request) {
        return Arrays.stream(Optional.ofNullable(request.getCookies()).orElse(new Cookie[0]))
                .filter(cookie -> cookie.getName().equals(name(request)))
                .map(Cookie::getValue)
                .findFirst();
    }

    /** @param session empty to make the browser forget it */
    static String of(HttpServletRequest request, String session, Duration age) {
        return ResponseCookie.from(name(request), session)
                .path("/")
                .httpOnly(true)
                .secure(request.isSecure())
                .sameSite("Lax")
                .maxAge(session.isEmpty() ? Duration.ZERO : age)
                .build()
                .toString();
    }
}
