package dev.oddbeacon.server.people;

import dev.oddbeacon.api.ChangesAnswer;
import dev.oddbeacon.server.access.ChangeLog;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/records-of-change}: what was done, by whom, from where. */
@RestController
class ChangesController {
    private final ChangeLog changes;

    ChangesController(ChangeLog changes) {
        this.changes = changes;
    }

    /** @param before the id that {@code next} of the page before tells */
    @GetMapping("/api/v1/records-of-change")
    ChangesAnswer changes(
            @RequestParam(required = false) Long before,
            @RequestParam(required = false) String account,
            @RequestParam(required = false) String action) {
        return changes.page(before == null ? Long.MAX_VALUE : before, account, action);
    }
}
