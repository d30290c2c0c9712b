package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.IssuedToken;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.api.Role;
import dev.oddbeacon.api.TokenInfo;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.server.records.TokenRecord;
import dev.oddbeacon.server.records.TokenRecords;
import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/** Tokens of programs. A token is shown once; what is kept of it cannot be sent. */
@Component
public class Tokens {
    private static final Logger LOG = LoggerFactory.getLogger(Tokens.class);
    /** What every token begins with, so that it can be recognised where it should not be. */
    private static final String PREFIX = "oddbeacon_";

    private static final int LONGEST_NAME = 100;
    private static final int DAYS = 90;
    private static final int MOST_DAYS = 400;
    private static final int MOST_OF_ACCOUNT = 100;
    private static final int MOST_REPOSITORIES = 500;

    private final TokenRecords records;
    private final Directory directory;
    private final Clock clock;
    private final Map<Long, Instant> used = new ConcurrentHashMap<>();

    Tokens(TokenRecords records, Directory directory, Clock clock) {
        this.records = records;
        this.directory = directory;
        this.clock = clock;
    }

    /** Finds what a program sent; empty if it is none, or has ended. */
    public Optional<Token> find(String sent) {
        Optional<Token> token = sent.startsWith(PREFIX) ? directory.token(Secrets.hash(sent)) : Optional.empty();
        return token.filter(found -> found.ends().isAfter(clock.instant())).map(this::noteUse);
    }

    /** A token from before as it is now; empty if it has ended, or was taken back. */
    public Optional<Token> find(Token token) {
        return directory.token(token.id()).filter(found -> found.ends().isAfter(clock.instant()));
    }

    /** Written in the background, once a minute at most: no request waits for it. */
    private Token noteUse(Token token) {
        Instant now = clock.instant().truncatedTo(ChronoUnit.MINUTES);
        Instant before = used.put(token.id(), now);
        if (before == null || before.isBefore(now)) {
            Thread.ofVirtual().name("token-use").start(() -> writeUse(token, now));
        }
        return token;
    }

    private void writeUse(Token token, Instant when) {
        try {
            records.findById(token.id()).ifPresent(record -> {
                record.used(when);
                records.save(record);
            });
        } catch (DataAccessException | TransactionException e) {
            LOG.info("When a token was used last could not be recorded: {}", e.getMessage());
        }
    }

    /** The tokens of an account, the newest first. */
    public List<TokenInfo> of(Account account) {
        return records.findByAccount(account.name()).stream()
                .sorted(Comparator.comparing(TokenRecord::created).reversed())
                .map(Tokens::info)
                .toList();
    }

    /** A token that may be made. */
    private record Checked(String name, Role role, Duration life, List<String> repositories) {}

    /** @throws BadRequestException if a part of it cannot be taken, or the account may not have it */
    public void check(Account account, NewToken wanted) {
        checked(account, wanted);
    }

    private static Checked checked(Account account, NewToken wanted) {
        String name = wanted.name() == null ? "" : wanted.name().strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME || !Visible.isVisible(name)) {
            throw new BadRequestException("A token has a name of up to " + LONGEST_NAME
                    + " characters that can be seen. Say what it is for.");
        }
        int days = Optional.ofNullable(wanted.days()).orElse(DAYS);
        if (days < 1 || days > MOST_DAYS) {
            throw new BadRequestException("A token lasts 1 to " + MOST_DAYS + " days.");
        }
        Role role = wanted.role() == null
                ? Role.READER
                : Role.of(wanted.role())
                        .orElseThrow(() -> new BadRequestException(
                                "There is no such role. Take reader, maintainer or administrator."));
        if (!account.role().covers(role)) {
            throw new BadRequestException("A token may do no more than its account, which is a "
                    + account.role().label() + "'s.");
        }
        List<String> repositories = Optional.ofNullable(wanted.repositories()).orElse(List.of()).stream()
                .distinct()
                .sorted()
                .toList();
        if (repositories.size() > MOST_REPOSITORIES) {
            throw new BadRequestException("A token is for at most " + MOST_REPOSITORIES
                    + " repositories. Leave the list out for all that you see.");
        }
        if (role == Role.ADMINISTRATOR && !repositories.isEmpty()) {
            throw new BadRequestException(
                    "An administrator's token sees everything. For some repositories, take reader or maintainer.");
        }
        return new Checked(name, role, Duration.ofDays(days), repositories);
    }

    /**
     * Makes a token.
     *
     * @param wanted with repositories that its account sees
     * @throws BadRequestException if a part of it cannot be taken
     */
    public IssuedToken issue(Account account, NewToken wanted) {
        Checked checked = checked(account, wanted);
        String token = PREFIX + Secrets.random();
        TokenRecord added = directory.change(() -> {
            if (records.findByAccount(account.name()).size() >= MOST_OF_ACCOUNT) {
                throw new BadRequestException(
                        "An account has at most " + MOST_OF_ACCOUNT + " tokens. Take some back that are not used.");
            }
            return records.save(new TokenRecord(
                    account.name(),
                    checked.name,
                    Secrets.hash(token),
                    checked.role,
                    checked.repositories,
                    clock.instant().plus(checked.life).truncatedTo(ChronoUnit.SECONDS)));
        });
        return new IssuedToken(info(added), token);
    }

    /** Takes a token back. @throws NotFoundException if the account has no such token */
    public TokenInfo remove(Account account, long id) {
        return directory.change(() -> {
            TokenRecord record = records.findById(id)
                    .filter(found -> found.account().equals(account.name()))
                    .orElseThrow(() -> new NotFoundException("There is no such token of yours."));
            records.delete(record);
            return info(record);
        });
    }

    private static TokenInfo info(TokenRecord record) {
        return new TokenInfo(
                record.id(),
                record.account(),
                record.name(),
                record.role().label(),
                record.repositories().stream().sorted().toList(),
                record.created(),
                record.ends(),
                record.lastUsed().orElse(null));
    }
}
