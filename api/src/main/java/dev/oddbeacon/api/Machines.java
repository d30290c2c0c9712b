package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * The answer to {@code GET /api/v1/machines}: the machines of a cluster.
 *
 * @param cluster its name; empty with one machine, which tells nothing else
 * @param objects where they share the files of the index
 * @param machines by name
 */
public record Machines(String cluster, String objects, List<Machine> machines) {
    /**
     * A machine.
     *
     * @param address where it answers; empty before it does
     * @param peerAddress where the other machines reach it, host:port; empty before they can
     * @param isReached whether the one that gives this answer reaches it there, or is it
     * @param state {@code serving}; {@code joining} while it brings what the others have; {@code leaving} while it ends
     *     what it was doing, to be taken out; {@code gone} if it does not live
     * @param isAnswering whether it is the one that gives this answer
     * @param isInCharge whether it does what only one machine does
     * @param files of the index that it holds
     * @param bytes of them
     * @param missing files that it is bringing
     * @param brought bytes that it has brought since its start
     * @param mirrors of repositories that it holds
     * @param mirrorsBehind mirrors that lack something of what is indexed, or are not there yet
     */
    public record Machine(
            String name,
            String address,
            String peerAddress,
            boolean isReached,
            String state,
            boolean isAnswering,
            boolean isInCharge,
            Instant joined,
            int files,
            long bytes,
            int missing,
            long brought,
            int mirrors,
            int mirrorsBehind) {}
}
