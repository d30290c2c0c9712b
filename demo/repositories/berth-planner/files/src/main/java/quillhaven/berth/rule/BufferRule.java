package quillhaven.berth.rule;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import quillhaven.berth.model.Stay;

/** Two stays at one berth keep the mooring buffer between them. */
final class BufferRule implements Rule {
    private final Duration buffer;

    BufferRule(Duration buffer) {
        this.buffer = buffer;
    }

    @Override
    public Optional<Violation> check(Stay candidate, List<Stay> others) {
        return others.stream().filter(other -> candidate.collidesWith(other, buffer)).findFirst()
                .map(other -> new Violation("buffer", candidate, "meets " + other.vessel().name() + " at " + other.berth().id()));
    }
}
