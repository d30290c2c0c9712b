package quillhaven.berth.plan;

import java.time.Duration;

/** The time between two ferries at one berth. See docs/mooring-buffer.md. */
public final class MooringBuffer {
    public static final Duration DEFAULT = Duration.ofMinutes(10);
    private static final double STRONG_WIND = 14.0;

    private MooringBuffer() {}

    /** The mooring buffer in a wind of so many metres a second. */
    public static Duration inWind(double metresPerSecond) {
        return metresPerSecond > STRONG_WIND ? DEFAULT.multipliedBy(2) : DEFAULT;
    }
}
