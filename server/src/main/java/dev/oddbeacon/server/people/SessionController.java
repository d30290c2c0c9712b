package dev.oddbeacon.server.people;

import dev.oddbeacon.api.FirstAdministrator;
import dev.oddbeacon.api.SessionInfo;
import dev.oddbeacon.api.SignIn;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.access.SignIns;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Accounts;
import dev.oddbeacon.server.accounts.FirstSignIn;
import dev.oddbeacon.server.accounts.Sessions;
import dev.oddbeacon.server.accounts.SlowDownException;
import dev.oddbeacon.server.accounts.Token;
import dev.oddbeacon.server.accounts.Tokens;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.web.NotFoundException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/session}: signing in and out. */
@RestController
@RequestMapping("/api/v1/session")
class SessionController {
    private final Settings settings;
    private final Accounts accounts;
    private final Sessions sessions;
    private final Tokens tokens;
    private final FirstSignIn first;
    private final SignIns signIns;
    private final ChangeLog changes;
    private final Events events;

    SessionController(
            Settings settings,
            Accounts accounts,
            Sessions sessions,
            Tokens tokens,
            FirstSignIn first,
            SignIns signIns,
            ChangeLog changes,
            Events events) {
        this.settings = settings;
        this.accounts = accounts;
        this.sessions = sessions;
        this.tokens = tokens;
        this.first = first;
        this.signIns = signIns;
        this.changes = changes;
        this.events = events;
    }

    /** Who asks. */
    @GetMapping
    SessionInfo session(Caller caller) {
        return info(caller.account().map(account -> person(account, caller)).orElse(null));
    }

    private static SessionInfo.SignedIn person(Account account, Caller caller) {
        return new SessionInfo.SignedIn(
                account.name(),
                account.displayName(),
                caller.role().orElse(account.role()).label(),
                List.copyOf(account.teams()),
                caller.token().map(Token::name).orElse(null));
    }

    /** Signs in by password: the answer has a cookie that the browser keeps. */
    @PostMapping
    ResponseEntity<Object> signIn(
            Caller caller, @RequestBody SignIn wanted, HttpServletRequest request, HttpServletResponse response) {
        checkThatThereAreAccounts();
        Optional<Account> account = accounts.signIn(wanted.name(), wanted.password(), caller.address());
        if (account.isEmpty()) {
            String tried = accounts.isAccount(wanted.name()) ? wanted.name() : ""; // it may be a password
            signIns.failed(request, tried);
            ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                    HttpStatus.UNAUTHORIZED,
                    "There is no account of this name with this password. Check both, or ask an administrator.");
            problem.setTitle("Not signed in");
            return ResponseEntity.status(HttpStatus.UNAUTHORIZED).body(problem);
        }
        return ResponseEntity.ok(begin(account.get(), request, response));
    }

    /** Makes the first administrator, and signs in. */
    @PostMapping("/first")
    SessionInfo first(@RequestBody FirstAdministrator wanted, HttpServletRequest request, HttpServletResponse response)
            throws IOException {
        checkThatThereAreAccounts();
        return begin(first.use(wanted), request, response);
    }

    private void checkThatThereAreAccounts() {
        if (!settings.accounts()) {
            throw new NotFoundException("Nobody signs in at this service: it is for one person on one machine.");
        }
    }

    private SessionInfo begin(Account account, HttpServletRequest request, HttpServletResponse response) {
        signIns.begin(account, request, response);
        return info(new SessionInfo.SignedIn(
                account.name(), account.displayName(), account.role().label(), List.copyOf(account.teams()), null));
    }

    private SessionInfo info(SessionInfo.SignedIn person) {
        boolean hasIssuer = settings.accounts() && !settings.issuer().address().isEmpty();
        return new SessionInfo(
                settings.accounts(),
                settings.guests(),
                person,
                hasIssuer ? settings.issuer().label() : null);
    }

    /** Signs out of this browser; of a program, takes its token back. */
    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(Caller caller, HttpServletRequest request, HttpServletResponse response) {
        caller.session().ifPresent(session -> {
            sessions.end(session);
            changes.add(caller, "sign-out", caller.account().orElseThrow().name());
        });
        if (caller.token().isPresent()) {
            tokens.remove(caller.account().orElseThrow(), caller.token().get().id());
            changes.add(caller, "token-removed", caller.token().get().name());
        }
        events.endOfAbsent();
        signIns.forget(request, response);
    }

    /** Signs out of all browsers. Tokens stay. */
    @DeleteMapping("/all")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOutEverywhere(Caller caller, HttpServletRequest request, HttpServletResponse response) {
        caller.account().map(Account::name).ifPresent(name -> {
            sessions.endAll(name);
            changes.add(caller, "sign-out-everywhere", name);
        });
        events.endOfAbsent();
        signIns.forget(request, response);
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> slowDown(SlowDownException e) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(HttpStatus.TOO_MANY_REQUESTS, e.getMessage());
        problem.setTitle("Too many attempts");
        return ResponseEntity.status(HttpStatus.TOO_MANY_REQUESTS)
                .header(HttpHeaders.RETRY_AFTER, String.valueOf(e.delay().toSeconds() + 1))
                .body(problem);
    }
}
