package dev.oddbeacon.server.people;

import dev.oddbeacon.api.AccountInfo;
import dev.oddbeacon.api.NewAccount;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.accounts.Accounts;
import dev.oddbeacon.server.accounts.Directory;
import dev.oddbeacon.server.events.Events;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/accounts} and {@code /api/v1/teams}: who may sign in. */
@RestController
class AccountsController {
    private final Accounts accounts;
    private final Directory directory;
    private final ChangeLog changes;
    private final Events events;

    AccountsController(Accounts accounts, Directory directory, ChangeLog changes, Events events) {
        this.accounts = accounts;
        this.directory = directory;
        this.changes = changes;
        this.events = events;
    }

    /** All accounts by name, those that ended included. */
    @GetMapping("/api/v1/accounts")
    List<AccountInfo> all() {
        return accounts.all();
    }

    /** Names of all teams. */
    @GetMapping("/api/v1/teams")
    List<String> teams() {
        return List.copyOf(directory.teams());
    }

    @PostMapping("/api/v1/accounts")
    @ResponseStatus(HttpStatus.CREATED)
    AccountInfo add(Caller caller, @RequestBody NewAccount wanted) {
        AccountInfo added = accounts.add(wanted);
        changes.add(caller, "account-added", told(added));
        return added;
    }

    /** Changes what is given; what is null stays. A new password ends the account's sessions. */
    @PutMapping("/api/v1/accounts/{name}")
    AccountInfo change(Caller caller, @PathVariable String name, @RequestBody NewAccount wanted) {
        AccountInfo changed = accounts.change(name, wanted);
        events.endOfAbsent(); // a new password has ended its sessions
        events.send("visibility", Optional.empty(), Map.of());
        changes.add(caller, "account-changed", told(changed));
        return changed;
    }

    /** Ends an account, its sessions and its tokens. */
    @DeleteMapping("/api/v1/accounts/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(Caller caller, @PathVariable String name) {
        accounts.end(name);
        events.endOfAbsent();
        changes.add(caller, "account-ended", name);
    }

    private static String told(AccountInfo account) {
        return account.name() + ": " + account.role()
                + account.teams().stream().map(team -> ", " + team).reduce("", String::concat);
    }
}
