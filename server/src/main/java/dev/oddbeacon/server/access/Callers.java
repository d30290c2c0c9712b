package dev.oddbeacon.server.access;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Directory;
import dev.oddbeacon.server.accounts.Sessions;
import dev.oddbeacon.server.accounts.Token;
import dev.oddbeacon.server.accounts.Tokens;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Knows callers by what they send, and what has become of them since. */
@Component
class Callers {
    private final Settings settings;
    private final Directory directory;
    private final Sessions sessions;
    private final Tokens tokens;
    private final Clock clock;

    Callers(Settings settings, Directory directory, Sessions sessions, Tokens tokens, Clock clock) {
        this.settings = settings;
        this.directory = directory;
        this.sessions = sessions;
        this.tokens = tokens;
        this.clock = clock;
    }

    /** Whether people sign in. */
    boolean signIn() {
        return settings.accounts();
    }

    /** Whoever sends neither a token nor a session. */
    Caller unknown(String address) {
        if (!settings.accounts()) {
            return Caller.anybody(address);
        }
        return settings.guests() ? Caller.guest(address) : Caller.outsider(address);
    }

    /** Whoever sends a token; empty if it is none, has ended, or was taken back. */
    Optional<Caller> ofToken(String sent, String address) {
        return tokens.find(sent).flatMap(token -> of(token).map(account -> Caller.program(account, token, address)));
    }

    /** Whoever has a session; empty if it has ended. */
    Optional<Caller> ofSession(String session, String address) {
        return sessions.find(session).flatMap(this::ofSession).map(account -> Caller.person(account, session, address));
    }

    /** A caller from before as it is now; empty if the session, the token or the account has ended since. */
    Optional<Caller> now(Caller caller) {
        if (caller.account().isEmpty()) {
            return Optional.of(caller);
        }
        if (caller.token().isPresent()) {
            return tokens.find(caller.token().get())
                    .flatMap(token -> of(token).map(account -> Caller.program(account, token, caller.address())));
        }
        return caller.session()
                .filter(sessions::isLive)
                .flatMap(session -> ofSession(caller.account().get().name())
                        .map(account -> Caller.person(account, session, caller.address())));
    }

    /** Whoever has an account, for what is told to them while they do not ask. @param name empty where nobody signs in */
    Optional<Caller> ofAccount(String name) {
        if (name.isEmpty() || !settings.accounts()) {
            return name.isEmpty() && !settings.accounts() ? Optional.of(Caller.anybody("")) : Optional.empty();
        }
        return directory
                .account(name)
                .filter(account -> isConfirmed(account, settings.issuer().tokensLast()))
                .map(account -> new Caller(
                        Optional.of(account), Optional.of(account.role()), Optional.empty(), Optional.empty(), ""));
    }

    private Optional<Account> of(Token token) {
        return directory
                .account(token.account())
                .filter(account -> isConfirmed(account, settings.issuer().tokensLast()));
    }

    private Optional<Account> ofSession(String name) {
        return directory
                .account(name)
                .filter(account -> isConfirmed(account, settings.issuer().sessionsLast()));
    }

    /** Of somebody who signs in through an issuer, whether that has said lately who it is. */
    private boolean isConfirmed(Account account, Duration lately) {
        return account.confirmed()
                .map(when -> clock.instant().isBefore(when.plus(lately)))
                .orElse(true);
    }
}
