package dev.oddbeacon.core.text;

import java.util.Arrays;

/**
 * An enumeration that is stored. What is written of a constant is its code, never its position, so that constants may
 * be moved and added; a code that was ever written keeps its meaning.
 */
public interface Coded {
    /** The code of this constant in files: from 0 to 255. */
    int code();

    /** The constants by their codes, with null where there is none. */
    static <E extends Enum<E> & Coded> E[] byCode(E[] values) {
        int most = Arrays.stream(values).mapToInt(Coded::code).max().orElseThrow();
        E[] table = Arrays.copyOf(values, most + 1);
        Arrays.fill(table, null);
        for (E value : values) {
            if (table[value.code()] != null) {
                throw new IllegalStateException(value + " and " + table[value.code()] + " have one code");
            }
            table[value.code()] = value;
        }
        return table;
    }
}
