package dev.oddbeacon.server.events;

import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Predicate;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Server-sent events: {@code repository} with a repository as it is now, {@code removed} with its name, {@code
 * exclusion-sets} with all of them.
 */
@Component
public class Events {
    /** @param sees whether the listener may see a repository, asked for each event */
    private record Listener(SseEmitter emitter, Predicate<String> sees) {}

    private final List<Listener> listeners = new CopyOnWriteArrayList<>();

    /** A stream of events about repositories that its listener may see, and about what is everybody's. */
    public SseEmitter listen(Predicate<String> sees) {
        SseEmitter emitter = new SseEmitter(0L);
        Listener listener = new Listener(emitter, sees);
        emitter.onCompletion(() -> listeners.remove(listener));
        emitter.onTimeout(() -> listeners.remove(listener));
        emitter.onError(_ -> listeners.remove(listener));
        listeners.add(listener);
        try {
            emitter.send(SseEmitter.event().comment("listening"));
        } catch (IOException | IllegalStateException e) {
            listeners.remove(listener);
        }
        return emitter;
    }

    /** @param repository that it is about; empty if it is about none */
    @SuppressWarnings("ModifyCollectionInEnhancedForLoop") // which a set of listeners allows: it is concurrent
    public void send(String name, Optional<String> repository, Object data) {
        for (Listener listener : listeners) {
            if (repository.map(listener.sees::test).orElse(true)) {
                try {
                    listener.emitter.send(SseEmitter.event().name(name).data(data, MediaType.APPLICATION_JSON));
                } catch (IOException | IllegalStateException e) {
                    listeners.remove(listener); // it has left
                }
            }
        }
    }

    /** Ends all streams, or a stop of the service would wait for them. */
    @EventListener(ContextClosedEvent.class)
    void closeAll() {
        listeners.forEach(listener -> listener.emitter.complete());
    }
}
