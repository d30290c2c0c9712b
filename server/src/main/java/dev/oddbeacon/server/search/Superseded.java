package dev.oddbeacon.server.search;

import dev.oddbeacon.core.search.Budget;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** An asker's newer search cancels the older one. */
@Component
public class Superseded {
    private final Map<String, Budget> latest = new ConcurrentHashMap<>();

    /** The asker's search before this one is not wanted any more. */
    public void by(String asker, Budget budget) {
        if (!asker.isEmpty()) {
            Budget older = latest.put(asker, budget);
            if (older != null) {
                older.cancel();
            }
        }
    }

    public void ended(String asker, Budget budget) {
        latest.remove(asker, budget);
    }
}
