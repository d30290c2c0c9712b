package quillhaven.berth.rule;

import java.util.List;
import java.util.Optional;
import quillhaven.berth.model.Stay;
import quillhaven.berth.tide.TideSource;

/** The water over the sill stays deep enough for as long as the ferry lies there. */
final class DepthRule implements Rule {
    private final TideSource tide;

    DepthRule(TideSource tide) {
        this.tide = tide;
    }

    @Override
    public Optional<Violation> check(Stay candidate, List<Stay> others) {
        double lowest = tide.lowestLevel(candidate.berth().terminal(), candidate.arrival(), candidate.departure());
        double water = candidate.berth().sillDepthMetres() + lowest;
        double needed = candidate.vessel().draughtMetres() + candidate.vessel().underKeelClearance();
        if (water >= needed) {
            return Optional.empty();
        }
        return Optional.of(new Violation("depth", candidate, String.format("%.2f m of water, %.2f m needed", water, needed)));
    }
}
