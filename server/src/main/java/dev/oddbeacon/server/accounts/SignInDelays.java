package dev.oddbeacon.server.accounts;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/**
 * Slows guessing: after five failures for an account from one address, twenty from an address, or fifty for an account,
 * each further one doubles the time until the next may be tried, up to a quarter of an hour. So one who guesses keeps the
 * account's owner out only from where the guesses come. A day without failures forgets them.
 */
@Component
class SignInDelays {
    private static final int FREE_OF_ACCOUNT_FROM_ADDRESS = 5;
    private static final int FREE_OF_ADDRESS = 20;
    private static final int FREE_OF_ACCOUNT = 50;
    private static final Duration LONGEST = Duration.ofMinutes(15);

    private record Failures(int count, Instant last) {}

    private final Clock clock;
    private final Cache<String, Failures> failures = Caffeine.newBuilder()
            .maximumSize(100_000)
            .expireAfterWrite(Duration.ofDays(1))
            .build();

    SignInDelays(Clock clock) {
        this.clock = clock;
    }

    /** How long to wait until the next try; empty if it may be now. */
    Optional<Duration> delay(String account, String address) {
        return Stream.of(
                        delayOf(from(account, address), FREE_OF_ACCOUNT_FROM_ADDRESS),
                        delayOf(address(address), FREE_OF_ADDRESS),
                        delayOf(account(account), FREE_OF_ACCOUNT))
                .flatMap(Optional::stream)
                .max(Duration::compareTo);
    }

    private static String from(String account, String address) {
        return "from " + address + " " + account;
    }

    private static String address(String address) {
        return "address " + address;
    }

    private static String account(String account) {
        return "account " + account;
    }

    private Optional<Duration> delayOf(String key, int free) {
        Failures failed = failures.getIfPresent(key);
        if (failed == null || failed.count < free) {
            return Optional.empty();
        }
        Duration pause = Duration.ofSeconds(1L << Math.min(20, failed.count - free));
        Duration capped = pause.compareTo(LONGEST) > 0 ? LONGEST : pause;
        Instant now = clock.instant();
        Instant last = failed.last.isAfter(now) ? now : failed.last; // by a clock that has been put back since
        Duration left = Duration.between(now, last.plus(capped));
        return left.isPositive() ? Optional.of(left) : Optional.empty();
    }

    void failed(String account, String address) {
        for (String key : List.of(from(account, address), address(address), account(account))) {
            failures.asMap()
                    .merge(
                            key,
                            new Failures(1, clock.instant()),
                            (before, now) -> new Failures(before.count + 1, now.last));
        }
    }

    void succeeded(String account, String address) {
        failures.invalidate(from(account, address));
    }
}
