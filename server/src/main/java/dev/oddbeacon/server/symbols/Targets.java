package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.Navigation;
import java.util.List;

/** Declarations, as answers tell them. */
final class Targets {
    private Targets() {}

    static List<SymbolAt.Target> of(View view, List<Navigation.Target> targets) {
        return targets.stream().map(target -> of(view, target)).toList();
    }

    static SymbolAt.Target of(View view, Navigation.Target target) {
        Branch branch = view.branch(target.branchNumber());
        return new SymbolAt.Target(
                target.name(),
                target.kind().label(),
                target.container(),
                branch.repository(),
                branch.name(),
                view.snapshot(target.branchNumber()).path(target.file()),
                target.line(),
                target.column(),
                target.signature(),
                target.reason().words());
    }
}
