package dev.oddbeacon.server.accounts;

import com.google.re2j.Pattern;
import dev.oddbeacon.api.AccountInfo;
import dev.oddbeacon.api.NewAccount;
import dev.oddbeacon.api.Role;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.server.records.AccountRecord;
import dev.oddbeacon.server.records.AccountRecords;
import dev.oddbeacon.server.records.TeamRecord;
import dev.oddbeacon.server.records.TeamRecords;
import dev.oddbeacon.server.records.TokenRecords;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.NotFoundException;
import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Keeps accounts and their teams, and knows people by their passwords. */
@Component
public class Accounts {
    static final Pattern NAME = Pattern.compile("[a-z0-9][a-z0-9._-]{0,63}");
    private static final int LONGEST_DISPLAY_NAME = 200;
    static final int MOST_TEAMS = 200;

    private final AccountRecords records;
    private final TeamRecords teams;
    private final TokenRecords tokens;
    private final Directory directory;
    private final Passwords passwords;
    private final SignInDelays delays;
    private final Sessions sessions;

    Accounts(
            AccountRecords records,
            TeamRecords teams,
            TokenRecords tokens,
            Directory directory,
            Passwords passwords,
            SignInDelays delays,
            Sessions sessions) {
        this.records = records;
        this.teams = teams;
        this.tokens = tokens;
        this.directory = directory;
        this.passwords = passwords;
        this.delays = delays;
        this.sessions = sessions;
    }

    /** All accounts by name, those that ended included. */
    public List<AccountInfo> all() {
        List<TeamRecord> allTeams = teams.findAll();
        return records.findAll().stream()
                .sorted(Comparator.comparing(AccountRecord::name))
                .map(record -> info(record, allTeams))
                .toList();
    }

    private static AccountInfo info(AccountRecord record, List<TeamRecord> teams) {
        return new AccountInfo(
                record.name(),
                record.displayName(),
                record.role().label(),
                teams.stream()
                        .filter(team -> team.members().contains(record.name()))
                        .map(TeamRecord::name)
                        .sorted()
                        .toList(),
                record.created(),
                record.ended().orElse(null));
    }

    private AccountInfo info(AccountRecord record) {
        return info(record, teams.findAll());
    }

    /**
     * Makes an account.
     *
     * @throws BadRequestException if a part of it cannot be taken
     * @throws ConflictException if there is one of that name, or was
     */
    public AccountInfo add(NewAccount wanted) {
        String name = checkedName("account", wanted.name());
        String hash = wanted.password() == null ? null : passwords.hash(name, wanted.password());
        return directory.change(() -> {
            if (records.findByName(name).isPresent()) {
                throw new ConflictException(
                        "There is an account " + name + ", or was: names are not given again. Choose another name.");
            }
            AccountRecord record = new AccountRecord(name);
            change(record, wanted);
            record.password(hash);
            AccountRecord added = records.save(record);
            join(name, Optional.ofNullable(wanted.teams()).orElse(List.of()));
            return info(added);
        });
    }

    /**
     * Changes an account; what is null stays. A new password ends its sessions; an empty one takes the password off, for
     * somebody who signs in through an issuer from then on.
     *
     * @throws NotFoundException if there is none, or it was ended
     * @throws ConflictException if nobody would be left to keep accounts
     */
    public AccountInfo change(String name, NewAccount wanted) {
        boolean isTakenOff = wanted.password() != null && wanted.password().isEmpty();
        String hash = wanted.password() == null || isTakenOff ? null : passwords.hash(name, wanted.password());
        AccountInfo changed = directory.change(() -> {
            AccountRecord record = active(name);
            if (wanted.password() != null && record.subject().isPresent()) {
                throw new BadRequestException(name + " signs in through the issuer, and has no password here.");
            }
            if (Role.of(wanted.role())
                    .filter(role -> role != Role.ADMINISTRATOR)
                    .isPresent()) {
                checkThatOthersKeepAccounts(record);
            }
            change(record, wanted);
            if (wanted.password() != null) {
                record.password(hash);
            }
            if (wanted.teams() != null) {
                join(name, wanted.teams());
            }
            return info(record);
        });
        if (wanted.password() != null) {
            sessions.endAll(name);
        }
        return changed;
    }

    /** Ends an account, its sessions and its tokens. */
    public void end(String name) {
        directory.change(() -> {
            AccountRecord record = active(name);
            checkThatOthersKeepAccounts(record);
            record.end();
            tokens.deleteByAccount(name);
            join(name, List.of());
            return name;
        });
        sessions.endAll(name);
    }

    private AccountRecord active(String name) {
        return records.findByName(name)
                .filter(record -> record.ended().isEmpty())
                .orElseThrow(() -> new NotFoundException("There is no account " + Visible.shown(name) + "."));
    }

    private void checkThatOthersKeepAccounts(AccountRecord record) {
        if (isOnlyAdministrator(record)) {
            throw new ConflictException(record.name() + " is the only administrator. Make somebody else one first.");
        }
    }

    boolean isOnlyAdministrator(AccountRecord record) {
        boolean others = records.findAll().stream()
                .anyMatch(other -> other.role() == Role.ADMINISTRATOR
                        && other.ended().isEmpty()
                        && !other.name().equals(record.name()));
        return record.role() == Role.ADMINISTRATOR && !others;
    }

    private static void change(AccountRecord record, NewAccount wanted) {
        if (wanted.displayName() != null) {
            if (!isDisplayName(wanted.displayName())) {
                throw new BadRequestException("The name to show is empty, has more than " + LONGEST_DISPLAY_NAME
                        + " characters, or some that cannot be seen.");
            }
            record.displayName(wanted.displayName().strip());
        }
        if (wanted.role() != null) {
            record.role(Role.of(wanted.role())
                    .orElseThrow(() -> new BadRequestException("There is no role " + Visible.shown(wanted.role())
                            + ". Take reader, maintainer or administrator.")));
        }
    }

    /** Whether people can be shown by it. */
    static boolean isDisplayName(String name) {
        return !name.isBlank() && name.length() <= LONGEST_DISPLAY_NAME && Visible.isVisible(name);
    }

    /** Makes an account a member of these teams and no others. */
    void join(String account, List<String> names) {
        if (names.size() > MOST_TEAMS) {
            throw new BadRequestException("An account is in at most " + MOST_TEAMS + " teams.");
        }
        List<String> wanted =
                names.stream().map(name -> checkedName("team", name)).distinct().toList();
        for (TeamRecord team : teams.findAll()) {
            if (!wanted.contains(team.name())) {
                team.members().remove(account);
            }
        }
        for (String name : wanted) {
            teams.findByName(name)
                    .orElseGet(() -> teams.save(new TeamRecord(name, name)))
                    .members()
                    .add(account);
        }
    }

    /** Capitals are taken for small letters; other alphabets are not taken, as their letters look like others. */
    private static String checkedName(String what, String name) {
        String folded = name == null ? "" : name.strip().toLowerCase(Locale.ROOT);
        if (!NAME.matches(folded)) {
            throw new BadRequestException(
                    "\"" + Visible.shown(name) + "\" cannot be the name of " + (what.equals("team") ? "a " : "an ")
                            + what
                            + ". Take up to 64 letters from a to z, digits, dots, dashes and underscores, the first a letter or digit.");
        }
        return folded;
    }

    /** Whether somebody may sign in by a name. */
    public boolean isAccount(String name) {
        return name != null && directory.account(name).isPresent();
    }

    /**
     * Knows a person by a password.
     *
     * @param address that asks
     * @return empty if there is no such account, or the password is another
     * @throws SlowDownException after too many failures
     */
    public Optional<Account> signIn(String name, String password, String address) {
        String folded = name == null ? "" : name.strip().toLowerCase(Locale.ROOT);
        Optional<Duration> delay = delays.delay(folded, address);
        if (delay.isPresent()) {
            throw new SlowDownException(delay.get());
        }
        Optional<String> hash = NAME.matches(folded)
                ? records.findByName(folded)
                        .filter(record -> record.ended().isEmpty())
                        .flatMap(AccountRecord::password)
                : Optional.empty();
        if (!passwords.matches(password, hash)) {
            delays.failed(folded, address);
            return Optional.empty();
        }
        delays.succeeded(folded, address);
        return directory.account(folded);
    }
}
