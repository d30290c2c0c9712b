package dev.oddbeacon.server.access;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.oddbeacon.server.Settings;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * How much one account may ask for, its tokens together with its browsers: so many requests a minute, of which a quarter
 * may come at once, and so many searches at a time. Without accounts there are no quotas.
 */
@Component
class Quotas {
    private static final int MOST_KNOWN = 100_000;
    private static final int PARTS_AT_ONCE = 4;

    private final Settings.Quotas limits;
    private final Clock clock;
    private final Cache<String, Use> uses = Caffeine.newBuilder()
            .maximumSize(MOST_KNOWN)
            .expireAfterAccess(Duration.ofMinutes(10))
            .build();

    /** What an account has used. Guarded by itself. */
    private static final class Use {
        private double left; // requests that may come now
        private Instant filled;
        private int searches; // at work

        Use(double left, Instant filled) {
            this.left = left;
            this.filled = filled;
        }
    }

    @Autowired
    Quotas(Settings settings, Clock clock) {
        this(settings.quotas(), clock);
    }

    Quotas(Settings.Quotas limits, Clock clock) {
        this.limits = limits;
        this.clock = clock;
    }

    /** Takes a request of an account. @return why it may not come now */
    Optional<String> take(String account, boolean isSearch) {
        Instant now = clock.instant();
        double most = Math.max(1.0, limits.requests() / (double) PARTS_AT_ONCE);
        Use use = uses.get(account, _ -> new Use(most, now));
        synchronized (use) {
            double seconds = Duration.between(use.filled, now).toNanos() / 1e9;
            use.left = Math.min(most, use.left + Math.max(0, seconds) * limits.requests() / 60);
            use.filled = now;
            if (use.left < 1) {
                return Optional.of("You have sent more than " + limits.requests()
                        + " requests a minute, the most of one account. Ask again in a moment, or for more at once.");
            }
            if (isSearch && use.searches >= limits.searches()) {
                return Optional.of("You have " + limits.searches()
                        + " searches running, the most of one account. Ask again when one has ended.");
            }
            use.left--;
            use.searches += isSearch ? 1 : 0;
            return Optional.empty();
        }
    }

    /** A search that was taken has ended. */
    void searchEnded(String account) {
        Use use = uses.getIfPresent(account);
        if (use != null) {
            synchronized (use) {
                use.searches = Math.max(0, use.searches - 1);
            }
        }
    }
}
