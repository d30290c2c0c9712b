package dev.oddbeacon.core.query.expression;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.Locale;
import java.util.OptionalLong;

/** Sizes in bytes as people write them: {@code 500}, {@code 10k} for 10,000, {@code 3M}, {@code 1G}. */
public final class ByteSizes {
    private static final Pattern SIZE = Pattern.compile("([0-9]{1,12})([kmg]?)");

    private ByteSizes() {}

    /** @return empty if it is none */
    public static OptionalLong parse(String text) {
        Matcher matcher = SIZE.matcher(text.toLowerCase(Locale.ROOT));
        return matcher.matches()
                ? OptionalLong.of(Long.parseLong(matcher.group(1)) * unit(matcher.group(2)))
                : OptionalLong.empty();
    }

    private static long unit(String letter) {
        return switch (letter) {
            case "k" -> 1_000;
            case "m" -> 1_000_000;
            case "g" -> 1_000_000_000;
            default -> 1;
        };
    }

    /** The shortest text that is read as so many bytes. */
    public static String print(long bytes) {
        for (String letter : new String[] {"g", "m", "k"}) {
            if (bytes > 0 && bytes % unit(letter) == 0) {
                return bytes / unit(letter) + (letter.equals("k") ? letter : letter.toUpperCase(Locale.ROOT));
            }
        }
        return String.valueOf(bytes);
    }
}
