package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.accounts.NotAdmittedException.Reason;
import dev.oddbeacon.server.records.AccountRecord;
import dev.oddbeacon.server.records.AccountRecords;
import dev.oddbeacon.server.secrets.Vault;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * Accounts of people who sign in through an issuer: made at their first sign-in, teams and role as the issuer's groups
 * say, each time it is asked.
 */
@Component
public class IssuedAccounts {
    private final AccountRecords records;
    private final Accounts accounts;
    private final Directory directory;
    private final Sessions sessions;
    private final Vault vault;
    private final Settings.Issuer settings;
    private final Clock clock;
    private final List<Glob> teams;

    IssuedAccounts(
            AccountRecords records,
            Accounts accounts,
            Directory directory,
            Sessions sessions,
            Vault vault,
            Settings settings,
            Clock clock) {
        this.records = records;
        this.accounts = accounts;
        this.directory = directory;
        this.sessions = sessions;
        this.vault = vault;
        this.settings = settings.issuer();
        this.clock = clock;
        this.teams = this.settings.groups().stream().map(Glob::ofName).toList();
    }

    /**
     * Somebody has come from the issuer: makes the account if it is the first time.
     *
     * @param grant what the issuer can be asked with again; empty if it cannot
     * @throws NotAdmittedException if there can be no account
     */
    public Account admit(Identity identity, Optional<String> grant) {
        String name = directory.change(() -> {
            AccountRecord record =
                    records.findBySubject(identity.subject()).orElseGet(() -> records.save(ofName(identity)));
            if (record.ended().isPresent()) {
                throw new NotAdmittedException(Reason.ENDED, record.name());
            }
            confirm(record, identity, grant);
            return record.name();
        });
        return directory.account(name).orElseThrow();
    }

    /** A new account, or one that an administrator has made for somebody who signs in through the issuer. */
    private AccountRecord ofName(Identity identity) {
        String told = identity.name().strip().toLowerCase(Locale.ROOT);
        String name = told.contains("@") ? told.substring(0, told.indexOf('@')) : told;
        if (!Accounts.NAME.matches(name)) {
            throw new NotAdmittedException(Reason.NO_NAME, Visible.shown(name));
        }
        Optional<AccountRecord> known = records.findByName(name);
        if (known.filter(record -> record.ended().isPresent()).isPresent()) {
            throw new NotAdmittedException(Reason.ENDED, name);
        }
        if (known.filter(record ->
                        record.password().isPresent() || record.subject().isPresent())
                .isPresent()) {
            throw new NotAdmittedException(Reason.NAME_TAKEN, name);
        }
        return known.orElseGet(() -> new AccountRecord(name));
    }

    private void confirm(AccountRecord record, Identity identity, Optional<String> grant) {
        identity.displayName()
                .map(String::strip)
                .filter(Accounts::isDisplayName)
                .ifPresent(record::displayName);
        identity.groups().ifPresent(groups -> {
            setRole(record, groups);
            accounts.join(record.name(), teams(groups));
        });
        record.confirm(
                identity.subject(),
                clock.instant(),
                grant.map(token -> vault.encrypt(purpose(record.name()), token)).orElse(null));
    }

    /** Where no groups are named that have a role, roles are as administrators have set them. */
    private void setRole(AccountRecord record, List<String> groups) {
        if (settings.maintainers().isEmpty() && settings.administrators().isEmpty()) {
            return;
        }
        Role role = Role.READER;
        if (groups.stream().anyMatch(settings.administrators()::contains)) {
            role = Role.ADMINISTRATOR;
        } else if (groups.stream().anyMatch(settings.maintainers()::contains)) {
            role = Role.MAINTAINER;
        }
        if (role == Role.ADMINISTRATOR || !accounts.isOnlyAdministrator(record)) {
            record.role(role);
        }
    }

    /** Groups whose names no team can have are left out. */
    private List<String> teams(List<String> groups) {
        return groups.stream()
                .map(group -> group.strip().toLowerCase(Locale.ROOT))
                .filter(group -> teams.stream().anyMatch(glob -> glob.matches(group)))
                .filter(Accounts.NAME::matches)
                .distinct()
                .sorted()
                .limit(Accounts.MOST_TEAMS)
                .toList();
    }

    private static String purpose(String account) {
        return "issuer grant of " + account;
    }

    /** Somebody of whom the issuer is to be asked again. @param subject as it was told */
    public record Due(String account, String subject, String grant) {}

    /** All of whom the issuer has said nothing since. */
    public List<Due> due(Instant since) {
        return records.findAll().stream()
                .filter(record -> record.ended().isEmpty()
                        && record.confirmed()
                                .filter(confirmed -> confirmed.isBefore(since) || confirmed.isAfter(clock.instant()))
                                .isPresent())
                .flatMap(record -> record
                        .issuerGrant()
                        .flatMap(grant -> vault.decrypt(purpose(record.name()), grant))
                        .map(grant -> new Due(record.name(), record.subject().orElseThrow(), grant))
                        .stream())
                .toList();
    }

    /** The issuer says again who it is. @return whether teams or role are others than before */
    public boolean renew(Identity identity, Optional<String> grant) {
        Optional<Account> before =
                records.findBySubject(identity.subject()).flatMap(record -> directory.account(record.name()));
        Account after = admit(identity, grant);
        return before.filter(account ->
                        account.role() == after.role() && account.teams().equals(after.teams()))
                .isEmpty();
    }

    /** The issuer does not know somebody any more: sessions end, and tokens wait until it does. */
    public void disown(String name) {
        directory.change(() -> {
            records.findByName(name).ifPresent(AccountRecord::disown);
            return name;
        });
        sessions.endAll(name);
    }
}
