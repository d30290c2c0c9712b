package dev.oddbeacon.server.index;

import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.records.RepositoryRecord;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/**
 * Which mirrors of this machine may lack something that another machine has indexed. With one machine there are none.
 *
 * <p>Concurrency: many want, one thread of {@link MirrorUpkeep} fetches.
 */
@Component
class LocalMirrors {
    private final ThisMachine machine;
    private final Mirrors mirrors;
    private final Map<Long, Want> wanted = new ConcurrentHashMap<>(); // by repository

    /**
     * That the mirror of a repository is to be brought up to date.
     *
     * @param anew whether nothing of it may stay
     * @param at nanoseconds: when that was said last
     */
    record Want(boolean anew, long at) {}

    LocalMirrors(ThisMachine machine, Mirrors mirrors) {
        this.machine = machine;
        this.mirrors = mirrors;
    }

    /** Whether the mirror here has all that is indexed. */
    boolean isReady(RepositoryRecord record) {
        return !machine.isOfCluster() || mirrors.holdsIndexed(record);
    }

    /** Something of a repository may have been indexed elsewhere. */
    void want(long repository) {
        want(repository, false);
    }

    /** A repository was purged elsewhere: nothing of its mirror here may stay. */
    void wantAnew(long repository) {
        want(repository, true);
    }

    private void want(long repository, boolean anew) {
        if (machine.isOfCluster()) {
            wanted.compute(
                    repository, (_, before) -> new Want(anew || before != null && before.anew, System.nanoTime()));
        }
    }

    Map<Long, Want> wanted() {
        return wanted;
    }
}
