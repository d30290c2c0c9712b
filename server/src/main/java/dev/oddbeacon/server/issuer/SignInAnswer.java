package dev.oddbeacon.server.issuer;

import dev.oddbeacon.server.access.SignIns;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.IssuedAccounts;
import dev.oddbeacon.server.accounts.NotAdmittedException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.oauth2.client.OAuth2AuthorizedClient;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizedClientRepository;
import org.springframework.security.oauth2.core.AbstractOAuth2Token;
import org.springframework.security.oauth2.core.OAuth2AuthenticationException;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.security.web.authentication.AuthenticationFailureHandler;
import org.springframework.security.web.authentication.AuthenticationSuccessHandler;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.web.client.RestClientException;

/**
 * What becomes of somebody who comes back from the issuer: a session, or the page for signing in with a word of what was
 * wrong. The word is one of a few, so that no link can make that page say what it likes.
 */
@Component
class SignInAnswer
        implements AuthenticationSuccessHandler, AuthenticationFailureHandler, OAuth2AuthorizedClientRepository {
    private static final Logger LOG = LoggerFactory.getLogger(SignInAnswer.class);
    private static final String GRANT = SignInAnswer.class.getName();

    private final Issuer issuer;
    private final PendingSignIns pending;
    private final IssuedAccounts accounts;
    private final SignIns signIns;

    SignInAnswer(Issuer issuer, PendingSignIns pending, IssuedAccounts accounts, SignIns signIns) {
        this.issuer = issuer;
        this.pending = pending;
        this.accounts = accounts;
        this.signIns = signIns;
    }

    @Override
    public void onAuthenticationSuccess(
            HttpServletRequest request, HttpServletResponse response, Authentication authentication)
            throws IOException {
        try {
            Account account = accounts.admit(
                    issuer.identity((OidcUser) authentication.getPrincipal()),
                    Optional.ofNullable((String) request.getAttribute(GRANT)));
            signIns.begin(account, request, response);
            response.sendRedirect(pending.back(request));
        } catch (NotAdmittedException e) {
            LOG.info("Somebody whom the issuer knows was not let in: {} {}", e.reason(), e.getMessage());
            signIns.failed(request, e.getMessage());
            refuse(request, response, e.reason().name().toLowerCase(Locale.ROOT).replace('_', '-'));
        } catch (DataAccessException | TransactionException e) {
            LOG.info("MariaDB does not answer, so that nobody can sign in: {}", e.getMessage());
            refuse(request, response, "not-now");
        }
    }

    @Override
    public void onAuthenticationFailure(
            HttpServletRequest request, HttpServletResponse response, AuthenticationException problem)
            throws IOException {
        String code = problem instanceof OAuth2AuthenticationException oauth
                ? oauth.getError().getErrorCode()
                : "";
        LOG.info("Somebody came back from the issuer and was not let in: {} {}", code, problem.getMessage());
        signIns.failed(request, "");
        refuse(
                request,
                response,
                switch (code) {
                    case "access_denied" -> "refused";
                    case "authorization_request_not_found" -> "stale";
                    default -> isGone(problem) ? "issuer-gone" : "answer-wrong";
                });
    }

    private static boolean isGone(Throwable problem) {
        for (Throwable cause = problem; cause != null; cause = cause.getCause()) {
            if (cause instanceof RestClientException || cause instanceof IssuerGoneException) {
                return true;
            }
        }
        return false;
    }

    private void refuse(HttpServletRequest request, HttpServletResponse response, String problem) throws IOException {
        refuse(response, problem, pending.back(request));
    }

    /** @param problem one of the words that the page for signing in explains @param back where somebody wanted to go */
    static void refuse(HttpServletResponse response, String problem, String back) throws IOException {
        response.sendRedirect(
                "/sign-in?problem=" + problem + "&back=" + URLEncoder.encode(back, StandardCharsets.UTF_8));
    }

    /** What the issuer can be asked with again is wanted a moment later, and is not kept here. */
    @Override
    public void saveAuthorizedClient(
            OAuth2AuthorizedClient client,
            Authentication principal,
            HttpServletRequest request,
            HttpServletResponse response) {
        request.setAttribute(
                GRANT,
                Optional.ofNullable(client.getRefreshToken())
                        .map(AbstractOAuth2Token::getTokenValue)
                        .orElse(null));
    }

    @Override
    @SuppressWarnings("TypeParameterUnusedInFormals") // the interface has it so
    public <T extends OAuth2AuthorizedClient> T loadAuthorizedClient(
            String registrationId, Authentication principal, HttpServletRequest request) {
        return null;
    }

    @Override
    public void removeAuthorizedClient(
            String registrationId,
            Authentication principal,
            HttpServletRequest request,
            HttpServletResponse response) {}
}
