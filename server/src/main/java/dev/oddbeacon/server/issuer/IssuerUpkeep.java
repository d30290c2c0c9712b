package dev.oddbeacon.server.issuer;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.accounts.Identity;
import dev.oddbeacon.server.accounts.IssuedAccounts;
import dev.oddbeacon.server.accounts.NotAdmittedException;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.processes.Charge;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.security.oauth2.core.OAuth2AuthorizationException;
import org.springframework.security.oauth2.core.OAuth2ErrorCodes;
import org.springframework.security.oauth2.jwt.JwtException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * Asks the issuer again, now and then, who those people are who have signed in through it: teams and role follow its
 * groups, and whoever has left is signed out. While it does not answer, people stay for as long as is set.
 */
@Component
class IssuerUpkeep {
    private static final Logger LOG = LoggerFactory.getLogger(IssuerUpkeep.class);

    private static final int ROUNDS = 4;

    private final Charge charge;
    private final Settings.Issuer settings;
    private final Issuer issuer;
    private final IssuerAnswers answers;
    private final IssuedAccounts accounts;
    private final Events events;
    private final Clock clock;
    private Instant next = Instant.MIN; // of the thread that asks

    IssuerUpkeep(
            Settings settings,
            Issuer issuer,
            IssuerAnswers answers,
            IssuedAccounts accounts,
            Events events,
            Clock clock,
            Charge charge) {
        this.charge = charge;
        this.settings = settings.issuer();
        this.issuer = issuer;
        this.answers = answers;
        this.accounts = accounts;
        this.events = events;
        this.clock = clock;
    }

    /** Whoever is due is asked about a little later: there is a round in each quarter of the time. */
    @Scheduled(fixedDelay = 1_000, initialDelay = 5_000)
    void ask() {
        Instant now = clock.instant();
        Duration pause = settings.every().dividedBy(ROUNDS);
        boolean isDue = now.isAfter(next) || now.plus(pause).isBefore(next); // the clock may have been put back
        if (!issuer.isConfigured() || !isDue || !charge.isOurs()) {
            return;
        }
        next = now.plus(pause);
        try {
            boolean hasChanged = false;
            for (IssuedAccounts.Due due : accounts.due(clock.instant().minus(settings.every()))) {
                hasChanged |= ask(due);
            }
            if (hasChanged) {
                events.endOfAbsent();
                events.send("visibility", Optional.empty(), Map.of());
            }
        } catch (IssuerGoneException | OAuth2AuthorizationException | JwtException e) {
            LOG.info("The issuer cannot be asked who people are; it is tried again: {}", e.getMessage());
        } catch (DataAccessException | TransactionException e) {
            LOG.info("What the issuer says could not be recorded; it is tried again: {}", e.getMessage());
        }
    }

    /** @return whether somebody may see something else now */
    private boolean ask(IssuedAccounts.Due due) {
        try {
            IssuerAnswers.Renewed renewed = answers.again(Issuer.id(due.subject()), due.grant());
            Identity identity = issuer.identity(renewed.user());
            if (!identity.subject().equals(due.subject())) {
                throw new IssuerGoneException("it answers for somebody else than was asked for");
            }
            return accounts.renew(identity, renewed.grant());
        } catch (NotAdmittedException e) {
            return false; // ended meanwhile
        } catch (OAuth2AuthorizationException e) {
            return disownIfRefused(due, e);
        }
    }

    private boolean disownIfRefused(IssuedAccounts.Due due, OAuth2AuthorizationException problem) {
        if (!problem.getError().getErrorCode().equals(OAuth2ErrorCodes.INVALID_GRANT)) {
            throw problem;
        }
        LOG.info("The issuer does not answer for {} any more, whose sessions end", due.account());
        accounts.disown(due.account());
        return true;
    }
}
