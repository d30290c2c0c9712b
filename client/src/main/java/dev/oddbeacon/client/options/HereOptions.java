package dev.oddbeacon.client.options;

import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.ChangedFiles;
import dev.oddbeacon.client.worktree.WorkTree;
import java.util.Optional;
import picocli.CommandLine.Option;

/** Options that say what of a work tree is searched with {@code --here}. */
public final class HereOptions {
    @Option(
            names = "--as-indexed",
            description = "With --here: as the service has it, without what changed in this work tree since.")
    private boolean asIndexed;

    @Option(names = "--with-ignored", description = "With --here: also files that Git ignores in this work tree.")
    private boolean withIgnored;

    private Optional<ChangedFiles> changed;

    /** What changed in the work tree; empty if nothing did, or it is not wanted. Says what was compared. */
    public Optional<ChangedFiles> changed(ScopeOptions scope, Service service) {
        if (changed == null) {
            Optional<WorkTree> tree = scope.workTree(service);
            if (tree.isEmpty() && (asIndexed || withIgnored)) {
                throw new ServiceProblem(
                        (asIndexed ? "--as-indexed" : "--with-ignored") + " goes with --here.", ExitStatus.WRONG);
            }
            changed = asIndexed ? Optional.empty() : tree.flatMap(one -> ChangedFiles.of(one, service, withIgnored));
            changed.ifPresent(one -> Terminal.complain(one.compared()));
        }
        return changed;
    }
}
