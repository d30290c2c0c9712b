package dev.oddbeacon.core.history;

import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.ObjectId;
import java.io.IOException;
import java.util.Collection;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Predicate;

/** The past of a repository: the port through which the core reads it. For one thread; each takes its own. */
public interface CommitSource extends AutoCloseable {
    /**
     * Tells commits that can be reached, the newest first.
     *
     * @param tips commits to start from
     * @param most commits to tell; what lies behind them is left out
     * @param knownIsWhole whether all that lies behind what is known is known too; else it is looked at
     * @param known commits that need not be told
     */
    void commits(
            Collection<ObjectId> tips,
            int most,
            boolean knownIsWhole,
            Predicate<ObjectId> known,
            Consumer<ObjectId> sink)
            throws IOException;

    /** @throws IOException if it is missing or damaged */
    Commit commit(ObjectId id) throws IOException;

    /**
     * What a commit changed, compared with its first parent, ordered by path; nothing of a merge. A parent that is
     * missing counts as empty.
     */
    List<PathChange> changes(Commit commit) throws IOException;

    Blobs blobs();

    @Override
    void close();
}
