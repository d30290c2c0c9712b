package quillhaven.berth.tide;

import java.time.Instant;

/** Where the planner learns how high the water stands. */
public interface TideSource {
    /** Lowest level above chart datum between two instants, in metres. */
    double lowestLevel(String terminal, Instant from, Instant until);
}
