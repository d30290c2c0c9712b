package dev.oddbeacon.server.credentials;

import dev.oddbeacon.api.CredentialInfo;
import dev.oddbeacon.api.HostKeys;
import dev.oddbeacon.api.NewCredential;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.index.IndexJobs;
import java.io.IOException;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/credentials}: what hosts of private repositories are shown. */
@RestController
@RequestMapping("/api/v1/credentials")
class CredentialsController {
    private final Credentials credentials;
    private final IndexJobs jobs;
    private final ChangeLog changes;

    CredentialsController(Credentials credentials, IndexJobs jobs, ChangeLog changes) {
        this.credentials = credentials;
        this.jobs = jobs;
        this.changes = changes;
    }

    /** All of them by host, without what is secret. */
    @GetMapping
    List<CredentialInfo> all() {
        return credentials.all();
    }

    /** The keys that a host offers over ssh, to be compared and confirmed. */
    @PostMapping("/host-keys")
    HostKeys hostKeys(@RequestParam String host) throws IOException {
        return credentials.offered(host);
    }

    /** Gives a credential, in place of the one that its host had; repositories there that failed are fetched again. */
    @PutMapping
    CredentialInfo give(Caller caller, @RequestBody NewCredential wanted) throws IOException {
        CredentialInfo given = credentials.give(wanted, caller.account().map(Account::name));
        changes.add(caller, "credential-given", given.kind() + " " + given.host());
        jobs.retryFailed(location -> Credentials.isAt(given, location));
        return given;
    }

    /** Takes a credential back. What was fetched stays. */
    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(Caller caller, @PathVariable long id) {
        CredentialInfo removed = credentials.remove(id);
        changes.add(caller, "credential-removed", removed.kind() + " " + removed.host());
    }
}
