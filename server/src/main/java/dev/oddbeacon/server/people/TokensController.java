package dev.oddbeacon.server.people;

import dev.oddbeacon.api.IssuedToken;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.api.TokenInfo;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Tokens;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/tokens}: what one's programs sign in with. */
@RestController
@RequestMapping("/api/v1/tokens")
class TokensController {
    private final Tokens tokens;
    private final TokenScope scope;
    private final ChangeLog changes;
    private final Events events;

    TokensController(Tokens tokens, TokenScope scope, ChangeLog changes, Events events) {
        this.events = events;
        this.scope = scope;
        this.tokens = tokens;
        this.changes = changes;
    }

    /** One's own, the newest first. */
    @GetMapping
    List<TokenInfo> all(Caller caller) {
        return tokens.of(account(caller));
    }

    /** Makes a token; it is told in this answer and never again. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    IssuedToken issue(Caller caller, @RequestBody NewToken wanted) {
        if (caller.token().isPresent()) {
            throw new BadRequestException("A token makes no tokens. Sign in, and make it there.");
        }
        scope.checkRepositories(caller, Optional.of(wanted));
        IssuedToken issued = tokens.issue(account(caller), wanted);
        changes.add(caller, "token-added", issued.info().name());
        return issued;
    }

    /** Takes a token back, at once. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(Caller caller, @PathVariable long id) {
        changes.add(caller, "token-removed", tokens.remove(account(caller), id).name());
        events.endOfAbsent();
    }

    private static Account account(Caller caller) {
        return caller.account()
                .orElseThrow(() ->
                        new NotFoundException("Nobody signs in at this service, so that programs need no token."));
    }
}
