package dev.oddbeacon.server.processes;

import dev.oddbeacon.server.records.ClaimRecords;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;

/**
 * What only one process may do at a time. Within a process, whoever claims sees to it that nobody else does. The claims
 * of a process end with it.
 */
@Component
public class Claims {
    private static final Logger LOG = LoggerFactory.getLogger(Claims.class);

    /** What can be claimed, of a repository. */
    public enum Kind {
        /** Its mirror is written; each machine has one. */
        MIRROR,
        /** Its past is read. */
        PAST,
        /** Segments that an earlier version wrote are written anew. */
        RENEWAL,
        /** What only one machine of a cluster does, of no repository. */
        CHARGE;

        private String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    private record Claim(Kind kind, long repository) {}

    private final ThisMachine machine;
    private final Processes processes;
    private final ClaimRecords records;
    private final Set<Claim> unreleased = ConcurrentHashMap.newKeySet();

    Claims(ThisMachine machine, Processes processes, ClaimRecords records) {
        this.machine = machine;
        this.processes = processes;
        this.records = records;
    }

    /** The machine within which something can be claimed once; 0 for once on all of them. */
    private long within(Kind kind) {
        return kind == Kind.MIRROR ? machine.number() : 0;
    }

    /** @return whether this process has it now */
    public boolean take(Kind kind, long repository) {
        unreleased.remove(new Claim(kind, repository));
        return records.take(kind.word(), repository, within(kind), processes.id());
    }

    /** If the records cannot be reached, it is done later. */
    public void release(Kind kind, long repository) {
        try {
            records.release(kind.word(), repository, within(kind), processes.id());
        } catch (DataAccessException | TransactionException e) {
            LOG.debug("A claim is given up later", e);
            unreleased.add(new Claim(kind, repository));
        }
    }

    /** Gives up what could not be given up before. */
    public void releaseLate() {
        for (Claim late : Set.copyOf(unreleased)) {
            if (unreleased.remove(late)) {
                release(late.kind, late.repository);
            }
        }
    }

    /** Processes that have claimed this, of whatever. */
    public Set<Long> holders(Kind kind) {
        return new HashSet<>(records.holders(kind.word()));
    }

    /** Repositories of which somebody has claimed this, so that it cannot be claimed here. */
    public Set<Long> held(Kind kind) {
        return new HashSet<>(records.held(kind.word(), within(kind)));
    }
}
