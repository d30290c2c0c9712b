package dev.oddbeacon.server.events;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** Server-sent events: {@code repository} with a repository as it is now, {@code removed} with its name. */
@Component
public class Events {
    private final List<SseEmitter> listeners = new CopyOnWriteArrayList<>();

    SseEmitter listen() {
        SseEmitter emitter = new SseEmitter(0L);
        emitter.onCompletion(() -> listeners.remove(emitter));
        emitter.onTimeout(() -> listeners.remove(emitter));
        emitter.onError(_ -> listeners.remove(emitter));
        listeners.add(emitter);
        try {
            emitter.send(SseEmitter.event().comment("listening"));
        } catch (IOException | IllegalStateException e) {
            listeners.remove(emitter);
        }
        return emitter;
    }

    public void send(String name, Object data) {
        for (SseEmitter listener : listeners) {
            try {
                listener.send(SseEmitter.event().name(name).data(data, MediaType.APPLICATION_JSON));
            } catch (IOException | IllegalStateException e) {
                listeners.remove(listener); // it has left
            }
        }
    }

    /** Ends all streams, or a stop of the service would wait for them. */
    void closeAll() {
        listeners.forEach(SseEmitter::complete);
    }
}
