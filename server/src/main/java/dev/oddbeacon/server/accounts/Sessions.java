package dev.oddbeacon.server.accounts;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.processes.News;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.session.jdbc.JdbcIndexedSessionRepository;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Sessions of people in browsers. They are recorded, so that they outlast a restart; those in use are known in memory,
 * so that no request waits for the records. A session ends when it was not used for a while, and at a set age.
 */
@Component
public class Sessions implements News.Hearer {
    private static final Logger LOG = LoggerFactory.getLogger(Sessions.class);
    private static final Duration BETWEEN_SAVES = Duration.ofMinutes(1);
    private static final int MOST_KNOWN = 100_000;

    private final FindByIndexNameSessionRepository<? extends Session> stored;
    private final JdbcIndexedSessionRepository cleaned;
    private final TransactionTemplate transaction;
    private final News news;
    private final Settings.Sessions limits;
    private final Clock clock;
    private final Cache<String, Live> known;

    /** A session that is in use. */
    private static final class Live {
        private final String account;
        private final Instant begun;
        private volatile Instant lastUsed;
        private volatile Instant lastSaved;

        Live(String account, Instant begun, Instant lastUsed) {
            this.account = account;
            this.begun = begun;
            this.lastUsed = lastUsed;
            this.lastSaved = lastUsed;
        }
    }

    Sessions(JdbcOperations jdbc, TransactionTemplate transaction, News news, Settings settings, Clock clock) {
        this.transaction = transaction;
        this.news = news;
        this.cleaned = new JdbcIndexedSessionRepository(jdbc, transaction);
        this.cleaned.setDefaultMaxInactiveInterval(settings.sessions().idle());
        this.stored = cleaned;
        this.limits = settings.sessions();
        this.clock = clock;
        this.known = Caffeine.newBuilder()
                .maximumSize(MOST_KNOWN)
                .expireAfterAccess(limits.idle())
                .build();
    }

    /** Begins a session. @return what the browser keeps */
    public String begin(Account account) {
        return begin(stored, account);
    }

    private <S extends Session> String begin(FindByIndexNameSessionRepository<S> repository, Account account) {
        S session = repository.createSession();
        session.setAttribute(FindByIndexNameSessionRepository.PRINCIPAL_NAME_INDEX_NAME, account.name());
        repository.save(session);
        known.put(session.getId(), new Live(account.name(), clock.instant(), clock.instant()));
        return session.getId();
    }

    /** The name of the account whose session it is; empty if it has ended, or never was. */
    public Optional<String> find(String id) {
        Live live = known.get(id, this::read);
        if (live == null) {
            return Optional.empty();
        }
        Instant now = clock.instant();
        if (hasEnded(live, now)) {
            live = read(id); // it may have been used on another machine
            if (live == null || hasEnded(live, now)) {
                end(id);
                return Optional.empty();
            }
            known.put(id, live);
        }
        live.lastUsed = now;
        if (now.isAfter(live.lastSaved.plus(BETWEEN_SAVES))) {
            live.lastSaved = now;
            Thread.ofVirtual().name("session-use").start(() -> saveUse(stored, id, now));
        }
        return Optional.of(live.account);
    }

    /** Whether a session that was found has not ended since; asking does not use it. */
    public boolean isLive(String id) {
        Live live = known.getIfPresent(id);
        return live != null && !hasEnded(live, clock.instant());
    }

    private boolean hasEnded(Live live, Instant now) {
        return now.isAfter(live.lastUsed.plus(limits.idle())) || now.isAfter(live.begun.plus(limits.age()));
    }

    private Live read(String id) {
        Session session = stored.findById(id);
        String account = session == null
                ? null
                : session.getAttribute(FindByIndexNameSessionRepository.PRINCIPAL_NAME_INDEX_NAME);
        return account == null ? null : new Live(account, session.getCreationTime(), session.getLastAccessedTime());
    }

    private <S extends Session> void saveUse(FindByIndexNameSessionRepository<S> repository, String id, Instant when) {
        try {
            S session = repository.findById(id);
            if (session != null) {
                session.setLastAccessedTime(when);
                repository.save(session);
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.info("When a session was used last could not be recorded: {}", e.getMessage());
        }
    }

    /** Ends a session. */
    public void end(String id) {
        known.invalidate(id);
        transaction.executeWithoutResult(_ -> {
            stored.deleteById(id);
            news.tell(News.Kind.SESSION, 0, id);
        });
    }

    @Override
    public News.Kind kind() {
        return News.Kind.SESSION;
    }

    @Override
    public void heard(News.Item item) {
        known.invalidate(item.detail());
    }

    /** Ends all sessions of an account. */
    public void endAll(String account) {
        known.asMap().values().removeIf(live -> live.account.equals(account));
        stored.findByPrincipalName(account).keySet().forEach(this::end);
    }

    @Scheduled(fixedDelay = 10 * 60_000, initialDelay = 60_000)
    void removeEnded() {
        try {
            cleaned.cleanUpExpiredSessions();
        } catch (DataAccessException | TransactionException e) {
            LOG.info("Sessions that ended could not be removed; it is tried again: {}", e.getMessage());
        }
    }
}
