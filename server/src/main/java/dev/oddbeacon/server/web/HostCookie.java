package dev.oddbeacon.server.web;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Duration;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;

/**
 * A cookie of this service alone. Over TLS its name binds it to this host and to secure connections; on loopback, where
 * there is no TLS, browsers would not take such a name. Scripts cannot read it, and other sites' requests are without it,
 * but for links.
 */
public record HostCookie(String name) {
    private String name(HttpServletRequest request) {
        return request.isSecure() ? "__Host-" + name : name;
    }

    /** What a browser has sent. */
    public Optional<String> of(HttpServletRequest request) {
        return Arrays.stream(Optional.ofNullable(request.getCookies()).orElse(new Cookie[0]))
                .filter(cookie -> cookie.getName().equals(name(request)))
                .map(Cookie::getValue)
                .findFirst();
    }

    /** Has the browser keep it. */
    public void set(HttpServletRequest request, HttpServletResponse response, String value, Duration age) {
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                ResponseCookie.from(name(request), value)
                        .path("/")
                        .httpOnly(true)
                        .secure(request.isSecure())
                        .sameSite("Lax")
                        .maxAge(age)
                        .build()
                        .toString());
    }

    /** Has the browser forget it. */
    public void forget(HttpServletRequest request, HttpServletResponse response) {
        set(request, response, "", Duration.ZERO);
    }
}
