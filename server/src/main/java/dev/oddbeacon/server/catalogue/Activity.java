package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.server.catalogue.Checked.Behind;
import java.time.Clock;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.UnaryOperator;
import org.springframework.stereotype.Component;

/**
 * What changes too often to be recorded each time: what is being done with a repository now, and what its origin said
 * when it was asked last. Repositories are known by the ids of their records.
 */
@Component
public class Activity {
    private final Map<Long, Repository.Progress> progress = new ConcurrentHashMap<>();
    private final Map<Long, Checked> checks = new ConcurrentHashMap<>();
    private final Clock clock;

    Activity(Clock clock) {
        this.clock = clock;
    }

    /** What is being done with it now. */
    public Optional<Repository.Progress> progress(long repository) {
        return Optional.ofNullable(progress.get(repository));
    }

    void progress(long repository, Repository.Progress now) {
        progress.put(repository, now);
    }

    void ended(long repository) {
        progress.remove(repository);
    }

    /** What is known of its origin. */
    public Optional<Checked> check(long repository) {
        return Optional.ofNullable(checks.get(repository));
    }

    public Checked checkOrNever(long repository) {
        return check(repository).orElseGet(() -> Checked.never(Instant.EPOCH));
    }

    /** What was known before the start. */
    public void load(Map<Long, Checked> known) {
        checks.putAll(known);
    }

    void forget(long repository) {
        progress.remove(repository);
        checks.remove(repository);
    }

    /** Its origin told its branches and tags, which are fetched. @param newest when its newest commit was made */
    public void fetched(long repository, String refs, Instant newest, Behind behind) {
        change(repository, check -> check.fetched(clock.instant(), refs, newest, behind));
    }

    /** It could not be fetched. */
    public void notFetched(long repository, String why) {
        change(repository, check -> check.notFetched(clock.instant(), why));
    }

    /** It has ended the service: it is not tried again by itself as it is. */
    public void hold(long repository) {
        change(repository, Checked::held);
    }

    /** All of it that is wanted is indexed. */
    public void indexed(long repository) {
        change(repository, Checked::indexed);
    }

    /** Its origin was asked. @return whether it has what was fetched */
    public boolean listed(long repository, String refs) {
        Checked known = checkOrNever(repository);
        if (known.isHeld()) {
            change(repository, check -> check.adopted(clock.instant(), refs));
            return true;
        }
        boolean isAsFetched = known.refs().equals(refs);
        change(repository, check -> check.listed(clock.instant(), isAsFetched));
        return isAsFetched;
    }

    /** Its origin was asked and did not answer. */
    public void silent(long repository, String why) {
        change(repository, check -> check.silent(clock.instant(), why));
    }

    private void change(long repository, UnaryOperator<Checked> change) {
        checks.compute(repository, (_, known) -> change.apply(known == null ? Checked.never(clock.instant()) : known));
    }
}
