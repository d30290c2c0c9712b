package dev.oddbeacon.server.events;

import dev.oddbeacon.server.web.BusyException;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * Server-sent events: {@code repository} with a repository as it is now, {@code removed} with its name, {@code
 * exclusion-sets} with all of them, {@code overview} in the place of the first two for whoever asks for no more, {@code visibility} when somebody may see more, or less, than before.
 *
 * <p>Concurrency: whoever has news only puts them into the queues of the listeners. Each listener has a virtual thread
 * that sends what its queue holds, and waits for the listener alone. Whose queue is full is dropped; it connects again
 * and asks for everything.
 */
@Component
public class Events {
    private static final int MOST_LISTENERS = 512;
    private static final int MOST_OF_ONE = 64;
    private static final int MOST_WAITING = 1_000;

    private static final Duration BETWEEN_OVERVIEWS = Duration.ofSeconds(1);
    /** A stream whose listener has gone is noticed when something is sent. */
    private static final Duration LONGEST_SILENCE = Duration.ofSeconds(5);

    private record Event(String name, Object data) {}

    private static final Event OVERVIEW = new Event("overview", Map.of());

    private final List<Listener> listeners = new CopyOnWriteArrayList<>();

    /** One stream. */
    private final class Listener {
        private final SseEmitter emitter = new SseEmitter(0L);
        private final BlockingQueue<Event> waiting = new ArrayBlockingQueue<>(MOST_WAITING);
        private final String who;
        private final boolean wantsOverview; // and no more of repositories
        private final AtomicBoolean isOverviewDue = new AtomicBoolean();
        private final Predicate<String> sees; // asked for each event
        private final BooleanSupplier isPresent; // asked for each event
        private final Thread sender = Thread.ofVirtual().name("events").unstarted(this::send);

        Listener(String who, boolean wantsOverview, Predicate<String> sees, BooleanSupplier isPresent) {
            this.who = who;
            this.wantsOverview = wantsOverview;
            this.sees = sees;
            this.isPresent = isPresent;
            emitter.onCompletion(this::leave);
            emitter.onTimeout(this::leave);
            emitter.onError(_ -> leave());
        }

        private void send() {
            try {
                emitter.send(SseEmitter.event().comment("listening"));
                while (true) {
                    Event event = waiting.poll(LONGEST_SILENCE.toMillis(), TimeUnit.MILLISECONDS);
                    if (event == null) {
                        emitter.send(SseEmitter.event().comment("listening")); // or nobody does any more
                        continue;
                    }
                    boolean isOverview = event == OVERVIEW;
                    if (isOverview) {
                        isOverviewDue.set(false); // what changes from now on is told again
                    }
                    emitter.send(SseEmitter.event().name(event.name).data(event.data, MediaType.APPLICATION_JSON));
                    if (isOverview) {
                        Thread.sleep(BETWEEN_OVERVIEWS);
                    }
                }
            } catch (IOException | IllegalStateException e) {
                leave();
            } catch (InterruptedException e) {
                emitter.complete(); // it was too slow
            }
        }

        void offer(Optional<String> repository, Event event) {
            if (!isPresent.getAsBoolean()) {
                end();
            } else if (repository.map(sees::test).orElse(true)) {
                offer(repository.isPresent() && wantsOverview ? OVERVIEW : event);
            }
        }

        private void offer(Event event) {
            boolean isTold = event == OVERVIEW && isOverviewDue.getAndSet(true);
            if (!isTold && !waiting.offer(event)) {
                leave();
            }
        }

        private void end() {
            leave();
            emitter.complete();
        }

        private void leave() {
            listeners.remove(this);
            sender.interrupt();
        }
    }

    /**
     * A stream of events about repositories that its listener may see, and about what is everybody's.
     *
     * @param wantsOverview whether to tell that repositories have changed, not how
     * @param who the same for all streams of one listener
     * @param isPresent whether the listener is still signed in; the stream ends when not
     * @throws BusyException if there are too many already
     */
    public SseEmitter listen(String who, boolean wantsOverview, Predicate<String> sees, BooleanSupplier isPresent) {
        long own =
                listeners.stream().filter(listener -> listener.who.equals(who)).count();
        if (listeners.size() >= MOST_LISTENERS || own >= MOST_OF_ONE) {
            throw new BusyException(
                    "Too many listen to events already. Close pages that are not needed, and try again.");
        }
        Listener listener = new Listener(who, wantsOverview, sees, isPresent);
        listeners.add(listener);
        listener.sender.start();
        return listener.emitter;
    }

    /** @param repository that it is about; empty if it is about none */
    public void send(String name, Optional<String> repository, Object data) {
        Event event = new Event(name, data);
        for (Listener listener : listeners) {
            listener.offer(repository, event);
        }
    }

    /** Ends the streams of those who are not signed in any more. */
    public void endOfAbsent() {
        for (Listener listener : listeners) {
            if (!listener.isPresent.getAsBoolean()) {
                listener.end();
            }
        }
    }

    /** Ends all streams, or a stop of the service would wait for them. */
    @EventListener(ContextClosedEvent.class)
    void closeAll() {
        listeners.forEach(listener -> listener.emitter.complete());
    }
}
