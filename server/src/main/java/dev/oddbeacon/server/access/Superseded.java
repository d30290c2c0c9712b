package dev.oddbeacon.server.access;

import dev.oddbeacon.core.search.Budget;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** An asker's newer search cancels the older one. */
@Component
class Superseded {
    private final Map<String, Budget> latest = new ConcurrentHashMap<>();

    /** The asker's search before this one is not wanted any more. @param asker empty for one that nothing supersedes */
    void by(String asker, Budget budget) {
        if (!asker.isEmpty()) {
            Budget older = latest.put(asker, budget);
            if (older != null) {
                older.cancel();
            }
        }
    }

    void ended(String asker, Budget budget) {
        latest.remove(asker, budget);
    }
}
