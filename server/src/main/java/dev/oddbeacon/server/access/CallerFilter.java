package dev.oddbeacon.server.access;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.server.web.Refusal;
import dev.oddbeacon.server.web.WebSafety;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.GrantedAuthority;
import org.springframework.security.core.authority.SimpleGrantedAuthority;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.transaction.TransactionException;
import org.springframework.web.filter.OncePerRequestFilter;

/** Finds out who sent a request: by a token, by a browser's session, or nobody yet. */
final class CallerFilter extends OncePerRequestFilter {
    private static final String BEARER = "Bearer ";

    private final Callers callers;
    private final Quotas quotas;

    CallerFilter(Callers callers, Quotas quotas) {
        this.callers = callers;
        this.quotas = quotas;
    }

    /** Who sent a request that this filter has seen. */
    static Caller of(HttpServletRequest request) {
        return request.getAttribute(Caller.class.getName()) instanceof Caller caller
                ? caller
                : Caller.outsider(request.getRemoteAddr());
    }

    @Override
    protected boolean shouldNotFilterAsyncDispatch() {
        return false; // the rest of an answer is for the same caller
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (request.getAttribute(Caller.class.getName()) == null) {
            Optional<String> authorization = Optional.ofNullable(request.getHeader(HttpHeaders.AUTHORIZATION));
            Caller caller;
            try {
                caller = caller(request, authorization);
            } catch (DataAccessException | TransactionException e) {
                Refusal.write(
                        response,
                        HttpStatus.SERVICE_UNAVAILABLE,
                        "MariaDB does not answer, so that nobody can sign in now. Whoever was signed in goes on.");
                return;
            }
            if (callers.signIn() && authorization.isPresent() && caller.token().isEmpty()) {
                Refusal.write(
                        response,
                        HttpStatus.UNAUTHORIZED,
                        "The token is none of this service's, has ended, or was taken back. Make a new one.");
                return;
            }
            if (caller.session().isPresent() && !WebSafety.isRead(request) && !isOwnPage(request)) {
                Refusal.write(
                        response,
                        HttpStatus.FORBIDDEN,
                        "A change by a browser's session must come from a page of this service. Programs send a token.");
                return;
            }
            request.setAttribute(Caller.class.getName(), caller);
        }
        SecurityContextHolder.getContext().setAuthentication(authentication(of(request)));
        boolean isLimited = callers.signIn() && of(request).role().isPresent();
        if (isLimited && request.getDispatcherType() == DispatcherType.REQUEST) {
            withinQuota(of(request).key(), request, response, chain);
        } else {
            chain.doFilter(request, response);
        }
    }

    private void withinQuota(String who, HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean isSearch = request.getRequestURI().startsWith("/api/v1/search/")
                || request.getRequestURI().equals("/mcp");
        Optional<String> refusal = quotas.take(who, isSearch);
        if (refusal.isPresent()) {
            response.setHeader(HttpHeaders.RETRY_AFTER, "1");
            Refusal.write(response, HttpStatus.TOO_MANY_REQUESTS, refusal.get());
            return;
        }
        try {
            chain.doFilter(request, response);
        } finally {
            if (isSearch) {
                quotas.searchEnded(who);
            }
        }
    }

    private Caller caller(HttpServletRequest request, Optional<String> authorization) {
        String address = request.getRemoteAddr();
        if (!callers.signIn()) {
            return callers.unknown(address);
        }
        Optional<Caller> caller = authorization.isPresent()
                ? authorization
                        .filter(header -> header.startsWith(BEARER))
                        .flatMap(header -> callers.ofToken(
                                header.substring(BEARER.length()).strip(), address))
                : SignIns.COOKIE.of(request).flatMap(session -> callers.ofSession(session, address));
        return caller.orElseGet(() -> callers.unknown(address));
    }

    /** Browsers say with every change where it comes from; other sites' pages were refused before. */
    private static boolean isOwnPage(HttpServletRequest request) {
        return request.getHeader(HttpHeaders.ORIGIN) != null
                || "same-origin".equals(request.getHeader("Sec-Fetch-Site"));
    }

    private UsernamePasswordAuthenticationToken authentication(Caller caller) {
        List<GrantedAuthority> authorities = Arrays.stream(Role.values())
                .filter(caller::may)
                .map(role -> role == Role.READER || !caller.isForSome() ? role.name() : Permissions.OF_SOME)
                .map(role -> (GrantedAuthority) new SimpleGrantedAuthority("ROLE_" + role))
                .collect(Collectors.toCollection(ArrayList::new));
        if (!callers.signIn() || caller.account().isPresent()) {
            authorities.add(new SimpleGrantedAuthority("ROLE_" + Permissions.PERSON));
        }
        return caller.role().isPresent()
                ? UsernamePasswordAuthenticationToken.authenticated(caller, null, authorities)
                : UsernamePasswordAuthenticationToken.unauthenticated(caller, null);
    }
}
