package dev.oddbeacon.client.output;

import java.time.Duration;
import java.time.Instant;
import java.util.Locale;

/** Numbers as people read them. */
public final class Amounts {
    private static final String[] UNITS = {"B", "kB", "MB", "GB", "TB"};

    private Amounts() {}

    public static String of(long count, String noun) {
        return of(count, noun, noun + "s");
    }

    public static String of(long count, String one, String many) {
        return number(count) + " " + (count == 1 ? one : many);
    }

    public static String number(long count) {
        return String.format(Locale.ROOT, "%,d", count);
    }

    /** A number of bytes in decimal units. */
    public static String bytes(long bytes) {
        double value = bytes;
        int unit = 0;
        while (value >= 1_000 && unit < UNITS.length - 1) {
            value /= 1_000;
            unit++;
        }
        return unit == 0
                ? bytes + " B"
                : String.format(Locale.ROOT, value < 10 ? "%.1f %s" : "%.0f %s", value, UNITS[unit]);
    }

    /** How long ago something was. */
    public static String ago(Instant when) {
        Duration age = Duration.between(when, Instant.now());
        if (age.toMinutes() < 1) {
            return "just now";
        }
        return age.toHours() < 1
                ? age.toMinutes() + " min ago"
                : age.toDays() < 2 ? age.toHours() + " h ago" : age.toDays() + " days ago";
    }
}
