package dev.oddbeacon.server.access;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import org.springframework.http.ResponseCookie;

/**
 * The cookie that a browser's session is known by. Over TLS its name binds it to this host and to secure connections;
 * on loopback, where there is no TLS, browsers would not take such a name.
 */
public final class SessionCookie {
    private static final String NAME = "oddbeacon-session";

    private SessionCookie() {}

    static String name(HttpServletRequest request) {
        return request.isSecure() ? "__Host-" + NAME : NAME;
    }

    /** @param session empty to make the browser forget it */
    public static String of(HttpServletRequest request, String session, Duration age) {
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
