package quillhaven.berth.model;

import java.time.Duration;
import java.time.Instant;

/** A ferry at a berth, from arrival to departure. */
public record Stay(Vessel vessel, Berth berth, Instant arrival, Instant departure, boolean charging) {

    public Stay {
        if (!departure.isAfter(arrival)) {
            throw new IllegalArgumentException(vessel.name() + " departs before it arrives");
        }
    }

    /** Whether the two stays are closer than a buffer at one berth. */
    public boolean collidesWith(Stay other, Duration buffer) {
        return berth.equals(other.berth)
                && arrival.isBefore(other.departure.plus(buffer))
                && other.arrival.isBefore(departure.plus(buffer));
    }
}
