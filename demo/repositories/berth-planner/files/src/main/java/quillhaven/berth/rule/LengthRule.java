package quillhaven.berth.rule;

import java.util.List;
import java.util.Optional;
import quillhaven.berth.model.Stay;

final class LengthRule implements Rule {
    @Override
    public Optional<Violation> check(Stay candidate, List<Stay> others) {
        if (candidate.berth().fits(candidate.vessel())) {
            return Optional.empty();
        }
        return Optional.of(new Violation("length", candidate, candidate.vessel().name() + " is too long for " + candidate.berth().id()));
    }
}
