package dev.oddbeacon.server.watches;

import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.Watch;
import dev.oddbeacon.api.Watch.Gathered;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.records.DeliveryRecord;
import dev.oddbeacon.server.records.DeliveryRecords;
import dev.oddbeacon.server.records.NoticeRecord;
import dev.oddbeacon.server.records.SavedSearchRecords;
import dev.oddbeacon.server.records.WatchRecord;
import dev.oddbeacon.server.records.WatchRecords;
import dev.oddbeacon.server.records.WatchStates;
import dev.oddbeacon.server.searches.KnownSearch;
import dev.oddbeacon.server.searches.SavedSearches;
import dev.oddbeacon.server.secrets.Secrets;
import dev.oddbeacon.server.secrets.Vault;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** Who watches which saved searches. Each account has its own watches; where nobody signs in, all share them. */
@Component
class Watches {
    private static final int MOST_DELIVERIES = 100;
    private static final String FEED = "/api/v1/feeds/";

    private final WatchRecords records;
    private final WatchStates states;
    private final DeliveryRecords deliveries;
    private final SavedSearchRecords searchRecords;
    private final SavedSearches searches;
    private final Notices notices;
    private final Watching watching;
    private final Webhooks webhooks;
    private final Mails mails;
    private final Vault vault;
    private final Contexts contexts;
    private final TransactionTemplate transaction;
    private final Clock clock;

    Watches(
            WatchRecords records,
            WatchStates states,
            DeliveryRecords deliveries,
            SavedSearchRecords searchRecords,
            SavedSearches searches,
            Notices notices,
            Watching watching,
            Webhooks webhooks,
            Mails mails,
            Vault vault,
            Contexts contexts,
            TransactionTemplate transaction,
            Clock clock) {
        this.records = records;
        this.states = states;
        this.deliveries = deliveries;
        this.searchRecords = searchRecords;
        this.searches = searches;
        this.notices = notices;
        this.watching = watching;
        this.webhooks = webhooks;
        this.mails = mails;
        this.vault = vault;
        this.contexts = contexts;
        this.transaction = transaction;
        this.clock = clock;
    }

    private static String owner(Caller caller) {
        return caller.account().map(Account::name).orElse("");
    }

    /** The caller's, by the names of their searches. */
    List<Watch> of(Caller caller) {
        Map<Long, SavedSearch> had = searches.had(caller);
        return records.findByOwner(owner(caller)).stream()
                .filter(watch -> had.containsKey(watch.searchId()))
                .map(watch -> info(watch, had.get(watch.searchId()), null, null))
                .sorted(Comparator.comparing(Watch::search).thenComparing(Watch::of))
                .toList();
    }

    /** One of them, as it is kept. */
    record Found(WatchRecord record, KnownSearch search) {}

    Found find(Caller caller, String name, Optional<String> of) {
        KnownSearch search = searches.find(caller, name, of);
        return records.findByOwnerAndSearchId(owner(caller), search.id())
                .map(record -> new Found(record, search))
                .orElseThrow(() -> new NotFoundException(
                        "You do not watch " + name + ". GET /api/v1/watches lists all that you do."));
    }

    private Watch info(WatchRecord watch, SavedSearch search, String feed, String secret) {
        Optional<DeliveryRecord> latest = deliveries.findFirstByWatchIdOrderByIdDesc(watch.id());
        String undelivered = latest.filter(
                        delivery -> (watch.webhook().isPresent() || watch.mail().isPresent())
                                && delivery.attempts() > 0
                                && !delivery.state().equals(DeliveryRecord.SENT))
                .map(delivery -> "The last message was not delivered: " + delivery.answer())
                .orElse(null);
        return new Watch(
                search.name(),
                search.of(),
                watch.went(),
                watch.gathered(),
                watch.mutedUntil().filter(clock.instant()::isBefore).orElse(null),
                watch.webhook().orElse(null),
                watch.mail().orElse(null),
                feed,
                secret,
                Optional.ofNullable(search.problem())
                        .or(() -> watching.problem(watch.searchId()))
                        .orElse(undelivered),
                notices.before(watch, Long.MAX_VALUE, 1).stream()
                        .findFirst()
                        .map(NoticeRecord::happened)
                        .orElse(null));
    }

    /** Begins to watch a search, or changes how it is told. */
    Watch save(Caller caller, String name, Optional<String> of, Watch.Change change) {
        KnownSearch search = searches.find(caller, name, of);
        Gathered gathered =
                change.gathered() == null ? null : Parameters.oneOf(Gathered.values(), "gathered", change.gathered());
        if (change.webhook() != null && !change.webhook().isEmpty()) {
            webhooks.check(change.webhook());
        }
        Optional<String> mail = Optional.ofNullable(change.mail()).map(String::strip);
        mail.filter(address -> !address.isEmpty()).ifPresent(mails::check);
        String feed = Secrets.random();
        String secret = Webhooks.newSecret();
        boolean[] isNew = new boolean[2]; // the feed, the secret
        try {
            transaction.executeWithoutResult(_ -> {
                WatchRecord record = records.findByOwnerAndSearchId(owner(caller), search.id())
                        .orElseGet(() -> begun(caller, search));
                record.wish(
                        Optional.ofNullable(change.went()).orElse(record.went()),
                        gathered == null
                                ? Objects.requireNonNullElse(record.gathered(), Parameters.lower(Gathered.NOT))
                                : Parameters.lower(gathered),
                        change.mutedUntil() == null ? record.mutedUntil() : Optional.of(change.mutedUntil()));
                if (!record.hasFeed() || Boolean.TRUE.equals(change.newFeed())) {
                    record.feed(Secrets.hash(feed));
                    isNew[0] = true;
                }
                if (change.webhook() != null
                        && !change.webhook().equals(record.webhook().orElse(""))) {
                    isNew[1] = !change.webhook().isEmpty();
                    record.told(notices.last(search.id())); // what was told otherwise is not sent
                    record.webhook(
                            change.webhook(),
                            isNew[1]
                                    ? vault.encrypt(Webhooks.purpose(search.id(), owner(caller)), secret)
                                    : new byte[0]);
                }
                if (mail.isPresent() && !mail.equals(record.mail().or(() -> Optional.of("")))) {
                    if (record.webhook().isEmpty() && record.mail().isEmpty()) {
                        record.told(notices.last(search.id())); // what was told otherwise is not sent
                    }
                    record.mail(mail.get());
                }
                records.save(record);
            });
        } catch (DataIntegrityViolationException e) {
            throw new ConflictException("This watch was changed meanwhile. Look at it, and try again.");
        }
        return info(
                find(caller, name, of).record(),
                searches.get(caller, name, of),
                isNew[0] ? FEED + feed : null,
                isNew[1] ? secret : null);
    }

    private WatchRecord begun(Caller caller, KnownSearch search) {
        if (!records.watched().contains(search.id())) {
            states.forget(search.id()); // what was found when it was watched before
        }
        return new WatchRecord(owner(caller), search.id(), clock.instant(), notices.last(search.id()));
    }

    void remove(Caller caller, String name, Optional<String> of) {
        WatchRecord record = find(caller, name, of).record();
        transaction.executeWithoutResult(_ -> records.deleteById(record.id()));
    }

    /** What it has told, the newest first. */
    Watch.Notices notices(Caller caller, String name, Optional<String> of, long before, int most) {
        WatchRecord watch = find(caller, name, of).record();
        try (CallerContext context = contexts.open(caller)) {
            return page(watch, context, before, most);
        }
    }

    private Watch.Notices page(WatchRecord watch, CallerContext context, long before, int most) {
        List<Watch.Notice> page = new ArrayList<>();
        long at = before;
        while (page.size() <= most) {
            List<NoticeRecord> more = notices.before(watch, at, most + 1);
            for (NoticeRecord record : more) {
                Notices.of(watch, context, record).ifPresent(page::add);
                at = record.id();
            }
            if (more.size() <= most) {
                break;
            }
        }
        boolean hasMore = page.size() > most;
        List<Watch.Notice> shown = page.subList(0, Math.min(most, page.size()));
        return new Watch.Notices(shown, hasMore ? shown.getLast().id() : null);
    }

    /** What a feed tells its owner, wherever it is read. */
    record OfFeed(KnownSearch search, List<Watch.Notice> notices) {}

    /** @param secret the part of its address that nobody can guess */
    OfFeed feed(String secret, int most) {
        WatchRecord watch = records.findByFeed(Secrets.hash(secret)).orElseThrow(Watches::noFeed);
        Caller caller = contexts.caller(watch.owner()).orElseThrow(Watches::noFeed);
        KnownSearch search = visible(caller, watch).orElseThrow(Watches::noFeed);
        try (CallerContext context = contexts.open(caller)) {
            return new OfFeed(search, page(watch, context, Long.MAX_VALUE, most).notices());
        }
    }

    private static NotFoundException noFeed() {
        return new NotFoundException(
                "There is no such feed, or not any more. The page of watches gives a new address.");
    }

    /** The search of a watch, as long as its owner has it. */
    Optional<KnownSearch> visible(Caller caller, WatchRecord watch) {
        return searches.had(caller).containsKey(watch.searchId())
                ? searchRecords.findById(watch.searchId()).map(KnownSearch::of)
                : Optional.empty();
    }

    /** Messages to its webhook and by mail, the newest first. */
    List<Watch.Delivery> deliveries(Caller caller, String name, Optional<String> of) {
        WatchRecord watch = find(caller, name, of).record();
        return deliveries.findByWatchIdOrderByIdDesc(watch.id(), Limit.of(MOST_DELIVERIES)).stream()
                .map(Watches::info)
                .toList();
    }

    private static Watch.Delivery info(DeliveryRecord record) {
        return new Watch.Delivery(
                record.id(),
                record.channel(),
                record.message(),
                record.made(),
                (int) Math.min(Integer.MAX_VALUE, record.lastNotice() - record.firstNotice() + 1),
                record.attempts(),
                record.state(),
                record.answer(),
                record.nextAttempt().orElse(null));
    }

    /** Sends a message again. */
    Watch.Delivery again(Caller caller, String name, Optional<String> of, long id) {
        WatchRecord watch = find(caller, name, of).record();
        return transaction.execute(_ -> {
            DeliveryRecord record = deliveries
                    .findByWatchIdAndId(watch.id(), id)
                    .orElseThrow(() -> new NotFoundException("There is no delivery " + id + " of this watch."));
            boolean isWanted = record.channel().equals(DeliveryRecord.MAIL)
                    ? watch.mail().isPresent()
                    : watch.webhook().isPresent();
            if (!isWanted) {
                throw new BadRequestException("This watch sends no " + record.channel() + " any more. Give one first.");
            }
            record.again(clock.instant());
            return info(deliveries.save(record));
        });
    }
}
