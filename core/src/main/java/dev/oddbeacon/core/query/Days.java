package dev.oddbeacon.core.query;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;

/**
 * Reads days: {@code 2026-01-31}, {@code 2026-01}, {@code 2026}; or back from today {@code 3d}, {@code 2w}, {@code 6m},
 * {@code 1y}. In UTC.
 */
public final class Days {
    private static final Pattern BACK = Pattern.compile("(\\d{1,4})([dwmy])");
    private static final Pattern YEAR = Pattern.compile("\\d{4}");
    private static final Pattern MONTH = Pattern.compile("\\d{4}-\\d{2}");

    private Days() {}

    /** @throws InvalidQueryException if it is no day */
    public static void check(String day) {
        start(day, Instant.EPOCH);
    }

    /**
     * The first moment of a day, or of the first day of a month or year.
     *
     * @throws InvalidQueryException if it is none
     */
    public static Instant start(String day, Instant now) {
        try {
            return date(day.strip(), now).atStartOfDay(ZoneOffset.UTC).toInstant();
        } catch (DateTimeException e) {
            throw new InvalidQueryException(
                    "\"" + day
                            + "\" is no day. Write one as 2026-01-31, 2026-01 or 2026, or back from today as 3d, 2w, 6m or 1y.");
        }
    }

    private static LocalDate date(String day, Instant now) {
        Matcher back = BACK.matcher(day);
        if (back.matches()) {
            ChronoUnit unit = switch (back.group(2)) {
                case "d" -> ChronoUnit.DAYS;
                case "w" -> ChronoUnit.WEEKS;
                case "m" -> ChronoUnit.MONTHS;
                default -> ChronoUnit.YEARS;
            };
            return LocalDate.ofInstant(now, ZoneOffset.UTC).minus(Integer.parseInt(back.group(1)), unit);
        }
        if (YEAR.matcher(day).matches()) {
            return LocalDate.of(Integer.parseInt(day), 1, 1);
        }
        return MONTH.matcher(day).matches() ? YearMonth.parse(day).atDay(1) : LocalDate.parse(day);
    }
}
