package dev.oddbeacon.server.access;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Directory;
import dev.oddbeacon.server.accounts.Sessions;
import dev.oddbeacon.server.accounts.Tokens;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Knows callers by what they send, and what has become of them since. */
@Component
class Callers {
    private final Settings settings;
    private final Directory directory;
    private final Sessions sessions;
    private final Tokens tokens;

    Callers(Settings settings, Directory directory, Sessions sessions, Tokens tokens) {
        this.settings = settings;
        this.directory = directory;
        this.sessions = sessions;
        this.tokens = tokens;
    }

    /** Whether people sign in. */
    boolean signIn() {
        return settings.accounts();
    }

    /** Whoever sends a token; empty if it is none, has ended, or was taken back. */
    Optional<Caller> ofToken(String sent, String address) {
        return tokens.find(sent)
                .flatMap(token ->
                        directory.account(token.account()).map(account -> Caller.program(account, token, address)));
    }

    /** Whoever has a session; empty if it has ended. */
    Optional<Caller> ofSession(String session, String address) {
        return sessions.find(session)
                .flatMap(directory::account)
                .map(account -> Caller.person(account, session, address));
    }

    /** A caller from before as it is now; empty if the session, the token or the account has ended since. */
    Optional<Caller> now(Caller caller) {
        if (caller.account().isEmpty()) {
            return Optional.of(caller);
        }
        Optional<Account> account = directory.account(caller.account().get().name());
        if (caller.token().isPresent()) {
            return tokens.find(caller.token().get())
                    .flatMap(token -> account.map(known -> Caller.program(known, token, caller.address())));
        }
        return caller.session()
                .filter(sessions::isLive)
                .flatMap(session -> account.map(known -> Caller.person(known, session, caller.address())));
    }
}
