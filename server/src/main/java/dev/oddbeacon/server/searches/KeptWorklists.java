package dev.oddbeacon.server.searches;

import dev.oddbeacon.server.records.WatchStates;
import dev.oddbeacon.server.records.WorklistRecord;
import dev.oddbeacon.server.records.WorklistRecords;
import java.time.Clock;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/** Which saved searches are worklists. Whoever changes that does it in a transaction. */
@Component
public class KeptWorklists {
    private final WorklistRecords records;
    private final WatchStates states;
    private final Clock clock;

    KeptWorklists(WorklistRecords records, WatchStates states, Clock clock) {
        this.records = records;
        this.states = states;
        this.clock = clock;
    }

    /** The ids of those that are. */
    Set<Long> searches() {
        return Set.copyOf(records.searches());
    }

    boolean has(long search) {
        return records.existsById(search);
    }

    /** Its items join as soon as the search was run. */
    public void begin(long search, Optional<String> by) {
        if (!has(search)) {
            records.save(new WorklistRecord(search, clock.instant(), by));
            states.forget(search); // so that all is looked at
        }
    }

    /** Ends one, with what was ticked off. */
    public void end(long search) {
        records.deleteById(search);
    }
}
