package dev.oddbeacon.server.web;

import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;

/** Limits of parameters, and the names of values in answers. */
public final class Parameters {
    private Parameters() {}

    /** A number within bounds, both included. @param otherwise what an absent one stands for */
    public static int range(String name, Integer value, int otherwise, int low, int high) {
        int number = value == null ? otherwise : value;
        if (number < low || number > high) {
            throw new BadRequestException(name + " is " + number + "; it must be from " + low + " to " + high + ".");
        }
        return number;
    }

    /** The value of a name; the first if there is no name. */
    public static <T extends Enum<T>> T oneOf(T[] values, String parameter, String name) {
        if (name == null || name.isEmpty()) {
            return values[0];
        }
        return Arrays.stream(values)
                .filter(value -> lower(value).equals(name))
                .findFirst()
                .orElseThrow(() -> new BadRequestException(parameter + " is \"" + name + "\"; it must be one of "
                        + Arrays.stream(values).map(Parameters::lower).collect(Collectors.joining(", ")) + "."));
    }

    public static boolean isTrue(Boolean value) {
        return Boolean.TRUE.equals(value);
    }

    public static String orEmpty(String value) {
        return value == null ? "" : value;
    }

    /** A value of an enumeration as it is written over HTTP. */
    public static String lower(Enum<?> value) {
        return value.name().toLowerCase(Locale.ROOT);
    }

    /** Milliseconds since a moment of {@link System#nanoTime}, with two digits behind the point. */
    public static double millisSince(long start) {
        return Math.round((System.nanoTime() - start) / 10_000.0) / 100.0;
    }
}
