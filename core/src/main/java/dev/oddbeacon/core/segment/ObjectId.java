package dev.oddbeacon.core.segment;

import java.util.HexFormat;

/**
 * The Git object id of a blob: 20 bytes, kept as three numbers so that many of them cost little.
 * Ordered as its bytes are, unsigned.
 */
public record ObjectId(long high, long middle, int low) implements Comparable<ObjectId> {
    public static final int BYTES = 20;

    /** @throws IllegalArgumentException unless the text is 40 hexadecimal digits */
    public static ObjectId of(String hex) {
        if (hex.length() != 2 * BYTES) {
            throw new IllegalArgumentException("Not an object id of 40 digits: " + hex);
        }
        return new ObjectId(
                HexFormat.fromHexDigitsToLong(hex, 0, 16),
                HexFormat.fromHexDigitsToLong(hex, 16, 32),
                HexFormat.fromHexDigits(hex, 32, 40));
    }

    /** Whether a text is 40 hexadecimal digits, in small letters. */
    public static boolean isId(String text) {
        return text.length() == 2 * BYTES && text.chars().allMatch(c -> c >= '0' && c <= '9' || c >= 'a' && c <= 'f');
    }

    @Override
    public int compareTo(ObjectId other) {
        int order = Long.compareUnsigned(high, other.high);
        if (order == 0) {
            order = Long.compareUnsigned(middle, other.middle);
        }
        return order == 0 ? Integer.compareUnsigned(low, other.low) : order;
    }

    @Override
    public String toString() {
        HexFormat hex = HexFormat.of();
        return hex.toHexDigits(high) + hex.toHexDigits(middle) + hex.toHexDigits(low);
    }
}
