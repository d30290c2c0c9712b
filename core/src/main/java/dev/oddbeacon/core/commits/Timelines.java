package dev.oddbeacon.core.commits;

import dev.oddbeacon.core.commits.CommitAnswer.Bar;
import dev.oddbeacon.core.commits.CommitAnswer.Timeline;
import dev.oddbeacon.core.commits.CommitAnswer.Unit;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/** Counts days in bars of a width that makes some dozens of them. */
final class Timelines {
    private static final int MOST_DAYS = 92;
    private static final int MOST_WEEKS = 3 * 366;
    private static final int MOST_MONTHS = 30 * 366;

    private Timelines() {}

    /** @param days ascending */
    static Timeline of(List<Bar> days) {
        if (days.isEmpty()) {
            return new Timeline(Unit.DAY, List.of());
        }
        long span =
                ChronoUnit.DAYS.between(days.getFirst().from(), days.getLast().from());
        Unit unit = span <= MOST_DAYS
                ? Unit.DAY
                : span <= MOST_WEEKS ? Unit.WEEK : span <= MOST_MONTHS ? Unit.MONTH : Unit.YEAR;
        Map<LocalDate, Integer> bars = new TreeMap<>();
        days.forEach(day -> bars.merge(start(unit, day.from()), day.commits(), Integer::sum));
        return new Timeline(
                unit,
                bars.entrySet().stream()
                        .map(bar -> new Bar(bar.getKey(), bar.getValue()))
                        .toList());
    }

    static LocalDate start(Unit unit, LocalDate day) {
        return switch (unit) {
            case DAY -> day;
            case WEEK -> day.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY));
            case MONTH -> day.withDayOfMonth(1);
            case YEAR -> day.withDayOfYear(1);
        };
    }
}
