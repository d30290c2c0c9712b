package dev.oddbeacon.server.index;

import dev.oddbeacon.server.processes.ThisMachine;
import dev.oddbeacon.server.records.BranchRecord;
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
    private final Map<Long, Boolean> wanted = new ConcurrentHashMap<>(); // repositories; whether anew

    LocalMirrors(ThisMachine machine, Mirrors mirrors) {
        this.machine = machine;
        this.mirrors = mirrors;
    }

    /** Whether the mirror here has all that is indexed. */
    boolean isReady(RepositoryRecord record) {
        return !machine.isOfCluster()
                || mirrors.holds(
                        record.id(),
                        record.branches().stream().map(BranchRecord::commitId).toList());
    }

    /** Something of a repository may have been indexed elsewhere. */
    void want(long repository) {
        if (machine.isOfCluster()) {
            wanted.putIfAbsent(repository, false);
        }
    }

    /** A repository was purged elsewhere: nothing of its mirror here may stay. */
    void wantAnew(long repository) {
        if (machine.isOfCluster()) {
            wanted.put(repository, true);
        }
    }

    Map<Long, Boolean> wanted() {
        return wanted;
    }
}
