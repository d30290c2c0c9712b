package dev.oddbeacon.server.people;

import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.processes.News;
import java.util.Map;
import java.util.Optional;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/** Another machine has changed who may sign in, or who sees what: streams of those who are gone end here as well. */
@Component
@Order(PeopleElsewhere.AFTER_THE_DIRECTORY)
class PeopleElsewhere implements News.Hearer {
    static final int AFTER_THE_DIRECTORY = 1;

    private final Events events;

    PeopleElsewhere(Events events) {
        this.events = events;
    }

    @Override
    public News.Kind kind() {
        return News.Kind.PEOPLE;
    }

    @Override
    public void heard(News.Item item) {
        events.endOfAbsent();
        events.send("visibility", Optional.empty(), Map.of());
    }
}
