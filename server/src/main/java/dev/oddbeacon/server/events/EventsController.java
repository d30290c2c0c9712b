package dev.oddbeacon.server.events;

import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

@RestController
class EventsController {
    private final Events events;

    EventsController(Events events) {
        this.events = events;
    }

    /** Changes as they happen. */
    @GetMapping(path = "/api/v1/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen() {
        return events.listen();
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        events.closeAll();
    }
}
