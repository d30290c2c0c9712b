package dev.oddbeacon.server.machines;

import dev.oddbeacon.core.search.Dividable;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.web.ConflictException;
import dev.oddbeacon.server.web.NotFoundException;
import io.micrometer.core.instrument.Counter;
import io.micrometer.core.instrument.MeterRegistry;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;

/**
 * Searches that would take a machine of a cluster long: each takes over a part of the repositories. What the others tell
 * is taken only where they know the same as this one, and what nobody tells is searched here: so the answer is that of
 * one machine, whatever happens to the others.
 */
@Component
public class Sharing {
    private static final String FINGERPRINT = "fingerprint";
    private static final Duration PATIENCE = Duration.ofMillis(200);

    private final Parts parts;
    private final MeterRegistry meters;
    private final Duration alone;

    Sharing(Parts parts, MeterRegistry meters, Settings settings) {
        this.parts = parts;
        this.meters = meters;
        this.alone = settings.cluster().shareAfter();
    }

    /** Where machines answer for parts, below the path of a search. */
    public static final String PART = "/part";

    /**
     * Runs a search, together with other machines if it takes long.
     *
     * @param path of such searches; below it, at {@link #PART}, machines answer for their parts
     * @param request that asks for it
     */
    public <A, P> A run(
            Dividable<A, P> search, String path, Class<P> type, SearchContext context, HttpServletRequest request) {
        List<Parts.Part> others = search.canBeDivided() ? parts.ofOthers(request) : List.of();
        if (others.isEmpty()) {
            return search.run(context);
        }
        A answer = search.run(context.within(alone));
        boolean isLong = search.stopped(answer).equals(Optional.of(Stop.TIME))
                && !context.budget().isOver();
        return isLong
                ? search.answer(new Run<>(search, path + PART, type, context).with(others, request), context)
                : answer;
    }

    /**
     * What another machine asks of this one: what is found in a part of the repositories.
     *
     * @throws NotFoundException if it is not another machine that asks
     * @throws ConflictException if this machine knows something else of the part
     */
    public <P> P part(Dividable<?, P> search, SearchContext context, HttpServletRequest request) {
        View part = context.view().of(parts.askedFor(request));
        if (!fingerprint(search, part).equals(request.getParameter(FINGERPRINT))) {
            throw new ConflictException("This machine does not know the same of these repositories.");
        }
        return search.find(context.of(part));
    }

    private static String fingerprint(Dividable<?, ?> search, View part) {
        return Long.toString(search.asksOfPasts() ? part.fingerprintWithPasts() : part.fingerprint());
    }

    /** One search that is shared. */
    private final class Run<P> {
        private final Dividable<?, P> search;
        private final String path;
        private final Class<P> type;
        private final SearchContext context;
        private final long start = System.nanoTime();
        private final List<P> found = new ArrayList<>();

        Run(Dividable<?, P> search, String path, Class<P> type, SearchContext context) {
            this.search = search;
            this.path = path;
            this.type = type;
            this.context = context;
        }

        private record Asked<P>(View view, Parts.Waiting<P> answer) {}

        List<P> with(List<Parts.Part> others, HttpServletRequest request) {
            View view = context.view();
            List<Asked<P>> asked = new ArrayList<>();
            for (Parts.Part part : others) {
                View there = view.of(part);
                if (!there.branches().isEmpty()) {
                    Map<String, String> more = Map.of(FINGERPRINT, fingerprint(search, there));
                    asked.add(new Asked<>(there, part.ask(request, path, more, type)));
                }
            }
            searchHere(view.of(repository -> others.stream().noneMatch(part -> part.test(repository))));
            long worked = System.nanoTime() - start; // about what a part of another takes here
            long end = System.nanoTime() + Math.max(worked, PATIENCE.toNanos());
            asked.forEach(part -> take(part, end));
            return found;
        }

        private void searchHere(View part) {
            found.add(search.find(context.of(part)));
        }

        /** @param end until when it is waited for, in nanoseconds: the same for all parts */
        private void take(Asked<P> asked, long end) {
            Duration left = Duration.ofNanos(Math.max(0, end - System.nanoTime()));
            Optional<P> told = asked.answer.upTo(left).filter(part -> search.isIn(part, context.view()));
            Counter.builder("oddbeacon.parts")
                    .description("Parts of searches that other machines were asked for.")
                    .tag("outcome", told.isPresent() ? "answered" : "searched here")
                    .register(meters)
                    .increment();
            told.ifPresentOrElse(found::add, () -> searchHere(asked.view));
        }
    }
}
