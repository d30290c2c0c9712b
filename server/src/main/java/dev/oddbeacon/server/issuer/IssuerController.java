package dev.oddbeacon.server.issuer;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.web.NotFoundException;
import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.security.oauth2.client.web.DefaultOAuth2AuthorizationRequestResolver;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizationRequestCustomizers;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationRequest;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** {@code /sign-in/issuer}: sends a browser to the issuer. */
@Controller
class IssuerController {
    private static final Logger LOG = LoggerFactory.getLogger(IssuerController.class);

    private final Settings settings;
    private final Issuer issuer;
    private final PendingSignIns pending;
    private final DefaultOAuth2AuthorizationRequestResolver requests;

    IssuerController(Settings settings, Issuer issuer, PendingSignIns pending) {
        this.settings = settings;
        this.issuer = issuer;
        this.pending = pending;
        this.requests = new DefaultOAuth2AuthorizationRequestResolver(issuer);
        this.requests.setAuthorizationRequestCustomizer(OAuth2AuthorizationRequestCustomizers.withPkce());
    }

    /** @param back the page to come back to */
    @Hidden
    @GetMapping("/sign-in/issuer")
    void begin(@RequestParam(required = false) String back, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        if (!settings.accounts() || !issuer.isConfigured()) {
            throw new NotFoundException("Nobody signs in through an issuer at this service.");
        }
        String page = LocalPath.of(back);
        try {
            OAuth2AuthorizationRequest wanted = OAuth2AuthorizationRequest.from(requests.resolve(request, Issuer.ID))
                    .attributes(attributes -> attributes.put(PendingSignIns.BACK, page))
                    .build();
            pending.saveAuthorizationRequest(wanted, request, response);
            response.sendRedirect(wanted.getAuthorizationRequestUri());
        } catch (IssuerGoneException e) {
            LOG.info("Nobody can sign in through the issuer now: {}", e.getMessage());
            SignInAnswer.refuse(response, "issuer-gone", page);
        }
    }
}
