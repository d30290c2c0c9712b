package dev.oddbeacon.server.watches;

import dev.oddbeacon.api.Watch;
import dev.oddbeacon.api.Watch.Gathered;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.Rounds;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.processes.Charge;
import dev.oddbeacon.server.processes.Processes;
import dev.oddbeacon.server.records.DeliveryRecord;
import dev.oddbeacon.server.records.DeliveryRecords;
import dev.oddbeacon.server.records.NoticeRecord;
import dev.oddbeacon.server.records.NoticeRecords;
import dev.oddbeacon.server.records.WatchRecord;
import dev.oddbeacon.server.records.WatchRecords;
import dev.oddbeacon.server.searches.KnownSearch;
import dev.oddbeacon.server.secrets.Vault;
import dev.oddbeacon.server.web.Parameters;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/**
 * Makes messages of notices, and delivers them: at once, or gathered by hour or day. One that does not arrive is sent again
 * later and later; after the last attempt it waits for somebody who says again.
 */
@Component
class Deliveries implements SmartLifecycle {
    private static final Logger LOG = LoggerFactory.getLogger(Deliveries.class);
    private static final Duration ROUND = Duration.ofMillis(500);
    private static final Duration BETWEEN_TIDYING = Duration.ofHours(1);
    private static final Duration KEPT = Duration.ofDays(90);
    private static final int AT_A_TIME = 20;
    private static final int MOST_NOTICES = 200; // of a message
    private static final List<Duration> LATER = List.of(
            Duration.ofSeconds(5),
            Duration.ofMinutes(5),
            Duration.ofMinutes(30),
            Duration.ofHours(2),
            Duration.ofHours(5),
            Duration.ofHours(10),
            Duration.ofHours(10));

    private final Charge charge;
    private final WatchRecords watches;
    private final NoticeRecords noticeRecords;
    private final DeliveryRecords records;
    private final Notices notices;
    private final Watches owners;
    private final Webhooks webhooks;
    private final Mails mails;
    private final Vault vault;
    private final Contexts contexts;
    private final TransactionTemplate transaction;
    private final Processes processes;
    private final Clock clock;
    private final Set<Long> underWay = ConcurrentHashMap.newKeySet(); // watches: one message of each at a time
    private Instant tidied = Instant.MIN;
    private final Rounds rounds = new Rounds("deliveries", ROUND, this::round);

    Deliveries(
            WatchRecords watches,
            NoticeRecords noticeRecords,
            DeliveryRecords records,
            Notices notices,
            Watches owners,
            Webhooks webhooks,
            Mails mails,
            Vault vault,
            Contexts contexts,
            TransactionTemplate transaction,
            Processes processes,
            Clock clock,
            Charge charge) {
        this.charge = charge;
        this.watches = watches;
        this.noticeRecords = noticeRecords;
        this.records = records;
        this.notices = notices;
        this.owners = owners;
        this.webhooks = webhooks;
        this.mails = mails;
        this.vault = vault;
        this.contexts = contexts;
        this.transaction = transaction;
        this.processes = processes;
        this.clock = clock;
    }

    @Override
    public void start() {
        if (processes.has(Duty.SERVING)) {
            rounds.start();
        }
    }

    private void round() {
        if (!charge.isOurs()) {
            return;
        }
        try {
            Instant now = clock.instant();
            for (WatchRecord watch : watches.findAll()) {
                if ((watch.webhook().isPresent() || watch.mail().isPresent())
                        && !watch.mutedUntil().filter(now::isBefore).isPresent()) {
                    make(watch, now);
                }
            }
            for (DeliveryRecord due :
                    records.findByNextAttemptLessThanEqualOrderByNextAttempt(now, Limit.of(AT_A_TIME))) {
                if (underWay.add(due.watchId())) {
                    Thread.ofVirtual().name("delivery-" + due.id()).start(() -> deliver(due));
                }
            }
            tidy(now);
        } catch (DataAccessException | TransactionException e) {
            LOG.info("Messages of watches are sent later: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Sending messages of watches failed", e);
        }
    }

    /** Makes a message of what the watch has not told yet, if it is time. */
    private void make(WatchRecord watch, Instant now) {
        List<NoticeRecord> untold = notices.after(watch, watch.told(), MOST_NOTICES);
        if (untold.isEmpty() || now.isBefore(due(watch, untold.getFirst().happened()))) {
            return;
        }
        transaction.executeWithoutResult(_ -> {
            if (watches.tell(watch.id(), untold.getLast().id()) == 1) {
                for (String channel : channels(watch)) {
                    records.save(new DeliveryRecord(
                            watch.id(),
                            channel,
                            "msg_" + UUID.randomUUID(),
                            untold.getFirst().id(),
                            untold.getLast().id(),
                            now));
                }
            }
        });
    }

    private static List<String> channels(WatchRecord watch) {
        List<String> channels = new ArrayList<>();
        watch.webhook().ifPresent(_ -> channels.add(DeliveryRecord.WEBHOOK));
        watch.mail().ifPresent(_ -> channels.add(DeliveryRecord.MAIL));
        return channels;
    }

    private static Instant due(WatchRecord watch, Instant happened) {
        return switch (Parameters.oneOf(Gathered.values(), "gathered", watch.gathered())) {
            case NOT -> happened;
            case HOUR -> happened.truncatedTo(ChronoUnit.HOURS).plus(Duration.ofHours(1));
            case DAY -> happened.truncatedTo(ChronoUnit.DAYS).plus(Duration.ofDays(1));
        };
    }

    private void deliver(DeliveryRecord due) {
        try {
            Optional<DeliveryRecord> now = records.findById(due.id())
                    .filter(record -> record.nextAttempt()
                            .filter(when -> !when.isAfter(clock.instant()))
                            .isPresent()); // it may have been sent since it was found
            if (now.isPresent()) {
                attemptNow(now.get());
            }
        } catch (DataAccessException | TransactionException e) {
            LOG.info("What became of a message is recorded later, and it may be sent twice: {}", e.getMessage());
        } catch (RuntimeException e) {
            LOG.warn("Delivering a message failed", e);
        } finally {
            underWay.remove(due.watchId());
        }
    }

    private void attemptNow(DeliveryRecord delivery) {
        Outcome outcome = attempt(delivery);
        Optional<Instant> next = outcome.isSent() || delivery.attempts() >= LATER.size()
                ? Optional.empty()
                : Optional.of(clock.instant().plus(LATER.get(delivery.attempts())));
        transaction.executeWithoutResult(_ -> records.findById(delivery.id()).ifPresent(record -> {
            record.tried(
                    outcome.isSent()
                            ? DeliveryRecord.SENT
                            : next.isPresent() ? DeliveryRecord.WAITING : DeliveryRecord.FAILED,
                    outcome.answer(),
                    next);
            records.save(record);
        }));
    }

    private Outcome attempt(DeliveryRecord delivery) {
        Optional<WatchRecord> watch = watches.findById(delivery.watchId());
        Optional<Caller> caller = watch.flatMap(found -> contexts.caller(found.owner()));
        Optional<KnownSearch> search = caller.flatMap(owner -> owners.visible(owner, watch.get()));
        if (search.isEmpty() || !channels(watch.get()).contains(delivery.channel())) {
            return new Outcome(true, "Nobody is to be told any more");
        }
        List<Watch.Notice> told = new ArrayList<>();
        try (CallerContext context = contexts.open(caller.get())) {
            for (NoticeRecord record : notices.between(watch.get(), delivery.firstNotice(), delivery.lastNotice())) {
                Notices.of(watch.get(), context, record).ifPresent(told::add);
            }
        }
        if (told.isEmpty()) {
            return new Outcome(true, "There is nothing in it that its owner is told");
        }
        return delivery.channel().equals(DeliveryRecord.MAIL)
                ? mails.send(
                        watch.get().mail().orElseThrow(),
                        search.get().name(),
                        delivery.message(),
                        delivery.made(),
                        told)
                : toWebhook(watch.get(), search.get(), delivery, told);
    }

    private Outcome toWebhook(WatchRecord watch, KnownSearch search, DeliveryRecord delivery, List<Watch.Notice> told) {
        Optional<String> secret = vault.decrypt(Webhooks.purpose(watch.searchId(), watch.owner()), watch.secret());
        if (secret.isEmpty()) {
            return new Outcome(false, "The secret cannot be read any more: give the webhook again");
        }
        String body = JsonMapper.shared()
                .writeValueAsString(Map.of(
                        "type",
                        "watch.notices",
                        "timestamp",
                        delivery.made(),
                        "data",
                        Map.of("search", search.name(), "notices", told)));
        return webhooks.send(watch.webhook().orElseThrow(), secret.get(), delivery.message(), clock.instant(), body);
    }

    /** What is older than three months, nobody asks for. */
    private void tidy(Instant now) {
        if (now.isAfter(tidied.equals(Instant.MIN) ? now.minusMillis(1) : tidied.plus(BETWEEN_TIDYING))) {
            transaction.executeWithoutResult(_ -> {
                records.deleteUntil(now.minus(KEPT));
                noticeRecords.deleteUntil(now.minus(KEPT));
            });
            tidied = now;
        }
    }

    @Override
    public void stop() {
        rounds.stop();
    }

    @Override
    public boolean isRunning() {
        return rounds.isRunning();
    }
}
