package dev.oddbeacon.server.watches;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.Watch.Notice;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.records.NoticeRecord;
import dev.oddbeacon.server.records.NoticeRecords;
import dev.oddbeacon.server.records.WatchRecord;
import dev.oddbeacon.server.results.ResultLines;
import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Component;

/** What watches tell, each as far as somebody may see it. */
@Component
class Notices {
    private static final int MOST_RESULTS = 100; // of a notice

    private final NoticeRecords records;

    Notices(NoticeRecords records) {
        this.records = records;
    }

    /** Those before one, the newest first, as records: some of them may not be for everybody. */
    List<NoticeRecord> before(WatchRecord watch, long before, int most) {
        return records.findBySearchIdAndIdLessThanOrderByIdDesc(watch.searchId(), before, Limit.of(most));
    }

    /** Those after one, the oldest first. */
    List<NoticeRecord> after(WatchRecord watch, long after, int most) {
        return records.findBySearchIdAndIdGreaterThanOrderById(watch.searchId(), after, Limit.of(most));
    }

    /** Those that a message is about. */
    List<NoticeRecord> between(WatchRecord watch, long first, long last) {
        return records.findBySearchIdAndIdBetweenOrderById(watch.searchId(), first, last);
    }

    long last(long search) {
        return records.last(search);
    }

    /** What a watch tells somebody of it; empty if that is nothing. */
    static Optional<Notice> of(WatchRecord watch, CallerContext context, NoticeRecord record) {
        if (!context.sees(record.repository()) || record.came() == 0 && !watch.went()) {
            return Optional.empty();
        }
        List<Result> all = ResultLines.decompress(record.results());
        List<Result> went = all.subList(record.came(), all.size());
        return Optional.of(new Notice(
                record.id(),
                record.happened(),
                record.repository(),
                record.came(),
                first(all.subList(0, record.came())),
                watch.went() ? record.went() : 0,
                watch.went() ? first(went) : List.of()));
    }

    private static List<Result> first(List<Result> results) {
        return results.subList(0, Math.min(MOST_RESULTS, results.size()));
    }
}
