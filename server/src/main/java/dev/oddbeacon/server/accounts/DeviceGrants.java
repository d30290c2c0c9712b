package dev.oddbeacon.server.accounts;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.oddbeacon.api.GrantedToken;
import dev.oddbeacon.api.IssuedToken;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.BusyException;
import dev.oddbeacon.server.web.NotFoundException;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * Programs that sign in through a browser: RFC 8628. A program asks for two codes and shows the short one; somebody who is
 * signed in allows it; the program, which asks again and again with the long code, is given a token. Kept in memory for ten
 * minutes: after a restart one begins anew.
 */
@Component
public class DeviceGrants {
    public static final Duration LIFE = Duration.ofMinutes(10);
    public static final Duration INTERVAL = Duration.ofSeconds(2);

    /** Letters that cannot form words, nor be taken for each other: RFC 8628, section 6.1. */
    private static final String LETTERS = "BCDFGHJKLMNPQRSTVWXZ";

    private static final int CODE_LETTERS = 8; // 20^8: 34 bits
    private static final int MOST = 1_000;
    private static final int LONGEST_PROGRAM = 60;
    private static final int DAYS = 90;

    private final SecureRandom random = new SecureRandom();
    private final Tokens tokens;
    private final Clock clock;
    private final Cache<String, Grant> byDevice;
    private final Cache<String, Grant> byUser;

    /** A program that waits. Guarded by itself. */
    private static final class Grant {
        private final String program;
        private final String address;
        private final Optional<NewToken> token;
        private Instant lastAsked = Instant.MIN;
        private Optional<Account> allowedBy = Optional.empty();
        private boolean refused;

        Grant(String program, String address, Optional<NewToken> token) {
            this.program = program;
            this.address = address;
            this.token = token;
        }
    }

    /** What a program is told. */
    public record Codes(String device, String user) {}

    DeviceGrants(Tokens tokens, Clock clock) {
        this.tokens = tokens;
        this.clock = clock;
        this.byDevice = cache();
        this.byUser = cache();
    }

    private static Cache<String, Grant> cache() {
        return Caffeine.newBuilder().maximumSize(MOST).expireAfterWrite(LIFE).build();
    }

    /**
     * Begins.
     *
     * @param program what it calls itself
     * @param token that it wants; empty for one of the role of whoever allows it
     * @throws BusyException if too many wait
     */
    public Codes begin(String program, String address, Optional<NewToken> token) {
        String name = program == null || program.isBlank() ? "a program" : program.strip();
        if (name.length() > LONGEST_PROGRAM || !Visible.isVisible(name)) {
            throw new BadRequestException(
                    "client_id has more than " + LONGEST_PROGRAM + " characters, or some that cannot be seen.");
        }
        byUser.cleanUp();
        if (byUser.estimatedSize() >= MOST) {
            throw new BusyException("Too many programs wait to be allowed. Try again in a few minutes.");
        }
        StringBuilder user = new StringBuilder();
        for (int i = 0; i < CODE_LETTERS; i++) {
            user.append(LETTERS.charAt(random.nextInt(LETTERS.length())));
        }
        Grant grant = new Grant(name, address, token);
        String device = Secrets.random();
        byDevice.put(Secrets.hash(device), grant);
        byUser.put(user.toString(), grant);
        return new Codes(device, user.insert(CODE_LETTERS / 2, '-').toString());
    }

    /** A program that waits, as somebody is asked about it. */
    public record Waiting(String program, String address, Optional<NewToken> token) {}

    /** @throws NotFoundException if no program waits with this code */
    public Waiting find(String userCode) {
        Grant grant = grant(userCode);
        return new Waiting(grant.program, grant.address, grant.token);
    }

    /**
     * Allows a program what an account may, or refuses it; the code is good once.
     *
     * @throws BadRequestException if the account may not have the token that the program wants
     */
    public Waiting decide(String userCode, Account account, boolean allow) {
        Grant grant = grant(userCode);
        if (allow) {
            grant.token.ifPresent(wanted -> tokens.check(account, wanted));
        }
        byUser.invalidate(letters(userCode));
        synchronized (grant) {
            grant.allowedBy = allow ? Optional.of(account) : Optional.empty();
            grant.refused = !allow;
        }
        return new Waiting(grant.program, grant.address, grant.token);
    }

    private Grant grant(String userCode) {
        return Optional.ofNullable(byUser.getIfPresent(letters(userCode)))
                .orElseThrow(() -> new NotFoundException(
                        "No program waits with this code. Codes are good once, for ten minutes: begin again there."));
    }

    private static String letters(String userCode) {
        StringBuilder letters = new StringBuilder();
        for (char letter : (userCode == null ? "" : userCode.toUpperCase(Locale.ROOT)).toCharArray()) {
            if (LETTERS.indexOf(letter) >= 0) {
                letters.append(letter);
            }
        }
        return letters.toString();
    }

    /** Answers a program that asks whether it was allowed. */
    public GrantedToken ask(String deviceCode) {
        String key = Secrets.hash(deviceCode == null ? "" : deviceCode);
        Grant grant = byDevice.getIfPresent(key);
        if (grant == null) {
            return refusal("expired_token");
        }
        synchronized (grant) {
            Instant now = clock.instant();
            boolean tooSoon = now.isBefore(
                    grant.lastAsked.equals(Instant.MIN) ? now : grant.lastAsked.plus(INTERVAL.dividedBy(2)));
            grant.lastAsked = now;
            if (grant.refused) {
                byDevice.invalidate(key);
                return refusal("access_denied");
            }
            if (grant.allowedBy.isEmpty()) {
                return refusal(tooSoon ? "slow_down" : "authorization_pending");
            }
            byDevice.invalidate(key);
            Account account = grant.allowedBy.get();
            NewToken wanted = grant.token.orElseGet(
                    () -> new NewToken(grant.program, account.role().label(), DAYS, List.of()));
            IssuedToken issued = tokens.issue(account, wanted);
            return new GrantedToken(
                    issued.token(),
                    "Bearer",
                    Duration.between(clock.instant(), issued.info().ends()).toSeconds(),
                    null);
        }
    }

    private static GrantedToken refusal(String error) {
        return new GrantedToken(null, null, null, error);
    }
}
