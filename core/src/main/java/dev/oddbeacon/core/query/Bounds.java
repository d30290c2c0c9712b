package dev.oddbeacon.core.query;

import java.math.BigDecimal;
import java.util.Optional;

/** Two numbers, and all between them; both belong to it. One of the two may be missing. */
public record Bounds(Optional<BigDecimal> from, Optional<BigDecimal> to) {
    public boolean contain(BigDecimal value) {
        return from.map(low -> low.compareTo(value) <= 0).orElse(true)
                && to.map(high -> high.compareTo(value) >= 0).orElse(true);
    }

    /** Whether no number is between them. */
    public boolean isEmpty() {
        return from.isPresent() && to.isPresent() && from.get().compareTo(to.get()) > 0;
    }
}
