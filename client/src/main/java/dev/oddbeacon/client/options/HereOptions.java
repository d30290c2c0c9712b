package dev.oddbeacon.client.options;

import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.ChangedFiles;
import dev.oddbeacon.client.worktree.Edits;
import dev.oddbeacon.client.worktree.WorkTree;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import picocli.CommandLine.Option;

/** Options that say what of a work tree is searched with {@code --here}. */
public final class HereOptions {
    private static final int OF_ID = 8;

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
            changed.ifPresent(one -> Terminal.complain(compared(one)));
        }
        return changed;
    }

    private static String compared(ChangedFiles changed) {
        Edits edits = changed.edits();
        String files = edits.isEmpty()
                ? "no file has changed"
                : Stream.of(
                                amount(edits.present().size(), "changed or new"),
                                amount(edits.gone().size(), "gone"))
                        .flatMap(Optional::stream)
                        .collect(Collectors.joining(", "));
        return edits.isIndexed()
                ? "as this work tree is now: " + files + " since the indexed commit " + id(changed.indexedCommit())
                        + "."
                : "as this work tree is now, as far as it is known: " + files + " since its own commit "
                        + id(edits.since()) + "; the indexed commit " + id(changed.indexedCommit())
                        + " is not here, git fetch brings it.";
    }

    private static Optional<String> amount(int files, String state) {
        return files == 0 ? Optional.empty() : Optional.of(Amounts.of(files, "file") + " " + state);
    }

    private static String id(String commit) {
        return commit.substring(0, Math.min(OF_ID, commit.length()));
    }
}
