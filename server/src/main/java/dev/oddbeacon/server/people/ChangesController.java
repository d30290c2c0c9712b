package dev.oddbeacon.server.people;

import dev.oddbeacon.api.ChangesAnswer;
import dev.oddbeacon.server.records.ChangeRecord;
import dev.oddbeacon.server.records.ChangeRecords;
import java.util.List;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/records-of-change}: what was done, by whom, from where. */
@RestController
class ChangesController {
    private static final int PAGE = 100;

    private final Reader reader;

    ChangesController(Reader reader) {
        this.reader = reader;
    }

    /** @param before the id that {@code next} of the page before tells */
    @GetMapping("/api/v1/records-of-change")
    ChangesAnswer changes(
            @RequestParam(required = false) Long before,
            @RequestParam(required = false) String account,
            @RequestParam(required = false) String action) {
        return reader.page(before == null ? Long.MAX_VALUE : before, account, action);
    }

    /** Reads pages. */
    @Component
    static class Reader {
        private final ChangeRecords records;

        Reader(ChangeRecords records) {
            this.records = records;
        }

        ChangesAnswer page(long before, String account, String action) {
            List<ChangeRecord> found = records.before(before, account, action, Limit.of(PAGE + 1));
            List<ChangesAnswer.Change> page = found.stream()
                    .limit(PAGE)
                    .map(change -> new ChangesAnswer.Change(
                            change.id(),
                            change.happened(),
                            change.account().orElse(null),
                            change.token().orElse(null),
                            change.address(),
                            change.action(),
                            change.subject()))
                    .toList();
            return new ChangesAnswer(page, found.size() > PAGE ? page.getLast().id() : null);
        }
    }
}
