package quillhaven.berth.rule;

import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import quillhaven.berth.model.Stay;

/** The noise agreement: nobody arrives at the Old Pier at night. */
final class QuietHoursRule implements Rule {
    private static final LocalTime FROM = LocalTime.of(23, 0);
    private static final LocalTime UNTIL = LocalTime.of(5, 30);
    private static final ZoneId HOME = ZoneId.of("Europe/Dublin");

    @Override
    public Optional<Violation> check(Stay candidate, List<Stay> others) {
        LocalTime arrival = candidate.arrival().atZone(HOME).toLocalTime();
        boolean quiet = arrival.isAfter(FROM) || arrival.isBefore(UNTIL);
        if (quiet && candidate.berth().terminal().equals("quillhaven-old-pier")) {
            return Optional.of(new Violation("quiet-hours", candidate, "arrives at " + arrival));
        }
        return Optional.empty();
    }
}
