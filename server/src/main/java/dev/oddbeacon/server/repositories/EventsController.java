package dev.oddbeacon.server.repositories;

import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.load.SearchThreadsOnly;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** {@code GET /api/v1/events} */
@RestController
class EventsController {
    private final Contexts contexts;
    private final Events events;

    EventsController(Contexts contexts, Events events) {
        this.contexts = contexts;
        this.events = events;
    }

    /** Changes as they happen. */
    @GetMapping(path = "/api/v1/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    @SearchThreadsOnly
    SseEmitter listen(Caller caller) {
        return events.listen(caller.key(), contexts.sees(caller), () -> contexts.isPresent(caller));
    }
}
