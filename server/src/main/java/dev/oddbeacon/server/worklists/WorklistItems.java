package dev.oddbeacon.server.worklists;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.Worklist.State;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.records.WorklistDays;
import dev.oddbeacon.server.records.WorklistItemRecord;
import dev.oddbeacon.server.records.WorklistItemRecords;
import dev.oddbeacon.server.records.WorklistRecords;
import dev.oddbeacon.server.results.Changes;
import dev.oddbeacon.server.web.Parameters;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** Items of worklists follow what their searches find: they move, go, come back, and new ones join. */
@Component
public class WorklistItems {
    private final WorklistRecords worklists;
    private final WorklistItemRecords records;
    private final WorklistDays days;
    private final FileOwners owners;
    private final Clock clock;

    WorklistItems(
            WorklistRecords worklists, WorklistItemRecords records, WorklistDays days, FileOwners owners, Clock clock) {
        this.worklists = worklists;
        this.records = records;
        this.days = days;
        this.owners = owners;
        this.clock = clock;
    }

    /** Searches whose results are ticked off. */
    public List<Long> searches() {
        return worklists.searches();
    }

    /** Repositories in which a search has items, gone ones among them. */
    public List<String> repositories(long search) {
        return records.repositories(search);
    }

    /** Who owns the files of items now, if nothing else has changed. Called in a transaction. */
    public void own(CallerContext context, long search, String repository) {
        if (!worklists.existsById(search)) {
            return;
        }
        boolean isChanged = false;
        for (WorklistItemRecord record : records.findBySearchIdAndRepository(search, repository)) {
            isChanged |= own(context, record, read(record));
        }
        if (isChanged) {
            records.flush();
            days.count(search, repository, LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC));
        }
    }

    private boolean own(CallerContext context, WorklistItemRecord record, Result result) {
        String before = record.owners();
        record.owners(String.join(" ", owners.of(context, result)));
        boolean isChanged = !before.equals(record.owners());
        if (isChanged) {
            records.save(record);
        }
        return isChanged;
    }

    /** What a search finds in a repository now. Called in a transaction. */
    public void follow(CallerContext context, long search, String repository, List<Result> found) {
        if (!worklists.existsById(search)) {
            return;
        }
        Instant now = clock.instant();
        Map<Result, WorklistItemRecord> items = new IdentityHashMap<>();
        for (WorklistItemRecord record : records.findBySearchIdAndRepository(search, repository)) {
            items.put(read(record), record);
        }
        String gone = Parameters.lower(State.GONE);
        String open = Parameters.lower(State.OPEN);
        List<Result> before = items.entrySet().stream()
                .sorted(Comparator.comparing((Map.Entry<Result, WorklistItemRecord> item) ->
                                item.getValue().state().equals(gone)) // those that are there still come first
                        .thenComparingLong(item -> item.getValue().id()))
                .map(Map.Entry::getKey)
                .toList();
        Changes changes = Changes.between(before, found);
        changes.stayed().forEach((earlier, later) -> {
            WorklistItemRecord record = items.get(earlier);
            String state = record.state().equals(gone) ? open : record.state();
            if (!earlier.equals(later) || !state.equals(record.state())) {
                record.found(state, write(later), now);
                records.save(record);
            }
            own(context, record, later);
        });
        for (Result result : changes.went()) {
            WorklistItemRecord record = items.get(result);
            if (!record.state().equals(gone)) {
                record.found(gone, record.result(), now);
                records.save(record);
            }
        }
        for (Result result : changes.came()) {
            WorklistItemRecord record = new WorklistItemRecord(search, repository, write(result), open, now);
            record.owners(String.join(" ", owners.of(context, result)));
            records.save(record);
        }
        records.flush();
        days.count(search, repository, LocalDate.ofInstant(now, ZoneOffset.UTC));
    }

    static Result read(WorklistItemRecord record) {
        return JsonMapper.shared().readValue(record.result(), Result.class);
    }

    private static String write(Result result) {
        return JsonMapper.shared().writeValueAsString(result);
    }
}
