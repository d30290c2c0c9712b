package dev.oddbeacon.server.repositories;

import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.events.Events;
import dev.oddbeacon.server.load.SearchThreadsOnly;
import dev.oddbeacon.server.web.BadRequestException;
import io.swagger.v3.oas.annotations.Parameter;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
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
    SseEmitter listen(
            Caller caller,
            @Parameter(
                            description =
                                    "overview: in place of each change of a repository, an event \"overview\" at most once a second")
                    @RequestParam(defaultValue = "all")
                    String about) {
        if (!about.equals("all") && !about.equals("overview")) {
            throw new BadRequestException("about is all or overview, not \"" + about + "\".");
        }
        return events.listen(
                caller.key(), about.equals("overview"), contexts.sees(caller), () -> contexts.isPresent(caller));
    }
}
