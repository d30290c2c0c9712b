package dev.oddbeacon.server.machines;

import com.hazelcast.cluster.Member;
import dev.oddbeacon.server.machines.Asking.Asked;
import dev.oddbeacon.server.machines.Asking.NoAnswerException;
import dev.oddbeacon.server.machines.Request.Answer;
import dev.oddbeacon.server.web.NotFoundException;
import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.util.Base64;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * Parts of the repositories, one for each machine of a cluster, by which they share the work of a search. A repository is
 * in a partition, and Hazelcast decides which machine has which partitions. A part is told with each question, so that
 * machines need not agree.
 */
@Component
public class Parts {
    private static final Logger LOG = LoggerFactory.getLogger(Parts.class);
    private static final String PARAMETER = "part";
    private static final Duration LEFT_ALONE = Duration.ofSeconds(5); // a machine that did not answer in time

    private final Membership membership;
    private final Asking asking;
    private final InnerDoor door;
    private final JsonMapper json;
    private final Map<Member, Long> silentSince = new ConcurrentHashMap<>(); // nanoseconds

    Parts(Membership membership, Asking asking, InnerDoor door, JsonMapper json) {
        this.membership = membership;
        this.asking = asking;
        this.door = door;
        this.json = json;
    }

    /** The partition of a repository, by its name: the same on all machines. */
    private static int partition(String repository) {
        return Math.floorMod(repository.hashCode(), Membership.PARTITIONS);
    }

    /** The part of another machine. */
    public final class Part implements Predicate<String> {
        private final Member machine;
        private final BitSet partitions;

        private Part(Member machine, BitSet partitions) {
            this.machine = machine;
            this.partitions = partitions;
        }

        /** Whether a repository is in it. */
        @Override
        public boolean test(String repository) {
            return partitions.get(partition(repository));
        }

        /**
         * Begins to ask the machine what a request asks this one, of its part alone.
         *
         * @param path where it answers with a {@code type}
         * @param more parameters besides those of the request
         * @return waits for the answer as long as it is given; empty if there is none
         */
        public <T> Waiting<T> ask(HttpServletRequest request, String path, Map<String, String> more, Class<T> type) {
            try {
                Map<String, String> parameters = new HashMap<>(more);
                parameters.put(PARAMETER, Base64.getUrlEncoder().encodeToString(partitions.toByteArray()));
                Asked asked = asking.ask(machine, request, path, parameters);
                return most -> told(asked, most, type);
            } catch (NoAnswerException e) {
                LOG.info("Another machine was not asked for its part of a search: {}", e.getMessage());
                return _ -> Optional.empty();
            }
        }

        private <T> Optional<T> told(Asked asked, Duration most, Class<T> type) {
            try {
                Answer answer = asked.await(most);
                return answer.status() == HttpStatus.OK.value()
                        ? Optional.of(json.readValue(answer.body(), type))
                        : Optional.empty();
            } catch (NoAnswerException | JacksonException e) {
                LOG.info("Another machine did not answer for its part of a search: {}", e.getMessage());
                silentSince.put(machine, System.nanoTime());
                return Optional.empty();
            }
        }
    }

    /** An answer that is waited for. */
    @FunctionalInterface
    public interface Waiting<T> {
        /** @param most how long */
        Optional<T> upTo(Duration most);
    }

    /**
     * The parts of the other machines that are likely to answer; none with one machine, or for a request that another
     * machine passed on.
     */
    public List<Part> ofOthers(HttpServletRequest request) {
        long now = System.nanoTime();
        silentSince.values().removeIf(since -> now - since > LEFT_ALONE.toNanos());
        return door.isOf(request)
                ? List.of()
                : membership.partitionsOfOthers().entrySet().stream()
                        .filter(entry -> !silentSince.containsKey(entry.getKey()))
                        .map(entry -> new Part(entry.getKey(), entry.getValue()))
                        .toList();
    }

    /**
     * The part that another machine asks this one for.
     *
     * @throws NotFoundException if it is not another machine that asks
     */
    public Predicate<String> askedFor(HttpServletRequest request) {
        if (!door.isOf(request)) {
            throw new NotFoundException("Nothing is answered here.");
        }
        BitSet partitions = BitSet.valueOf(Base64.getUrlDecoder().decode(request.getParameter(PARAMETER)));
        return repository -> partitions.get(partition(repository));
    }
}
