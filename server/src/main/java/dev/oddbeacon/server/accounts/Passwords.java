package dev.oddbeacon.server.accounts;

import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.Optional;
import java.util.concurrent.Semaphore;
import org.springframework.security.crypto.argon2.Argon2PasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Passwords, kept as Argon2id hashes (RFC 9106) with 19 MiB, two passes and one lane, as OWASP recommends. Few are
 * compared at a time, for the sake of memory.
 */
@Component
class Passwords {
    private static final int SHORTEST = 12;
    private static final int LONGEST = 200;
    private static final int AT_A_TIME = 4;

    private final Argon2PasswordEncoder encoder = new Argon2PasswordEncoder(16, 32, 1, 19 << 10, 2);
    private final Semaphore places = new Semaphore(AT_A_TIME);
    private final String ofNobody = encoder.encode(Secrets.random());

    /** @throws BadRequestException if it is too easily guessed */
    String hash(String account, String password) {
        if (password == null || password.length() < SHORTEST || password.length() > LONGEST) {
            throw new BadRequestException(
                    "A password has " + SHORTEST + " to " + LONGEST + " characters. Several words do well.");
        }
        if (password.toLowerCase(java.util.Locale.ROOT).contains(account)) {
            throw new BadRequestException("A password must not hold the account's name. Choose another.");
        }
        return within(() -> encoder.encode(password));
    }

    /** Whether it is the one of a hash. Takes as long if there is no hash: nobody learns which accounts there are. */
    boolean matches(String password, Optional<String> hash) {
        String given = password == null || password.length() > LONGEST ? "" : password;
        boolean same = within(() -> encoder.matches(given, hash.orElse(ofNobody)));
        return same && hash.isPresent();
    }

    private <T> T within(java.util.function.Supplier<T> work) {
        places.acquireUninterruptibly();
        try {
            return work.get();
        } finally {
            places.release();
        }
    }
}
