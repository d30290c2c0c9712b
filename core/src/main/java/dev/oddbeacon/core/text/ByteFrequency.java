package dev.oddbeacon.core.text;

/**
 * How common a byte is in source text, as a rank from 0, the most common. It need only be roughly right:
 * it decides which two bytes of a literal a scan compares first, and which bytes of a regular expression it looks for.
 */
final class ByteFrequency {
    private static final String MOST_COMMON_FIRST =
            " etirnasocdl_up\n\tmf,hg-()0b;.*x=y1vk2E/\"RTwSIC>3{}ANLOD84567:P9F'MU&#zGBq<j+HV[]\\|W!%K@$XY~?Q`^JZ";
    private static final byte[] RANKS = ranks();

    private ByteFrequency() {}

    static int rank(byte value) {
        return RANKS[value & 0xFF];
    }

    /** Roughly which part of all bytes it is. */
    static double share(byte value) {
        return (value == ' ' ? 0.15 : 0.05) * Math.exp(-rank(value) / 18.0);
    }

    private static byte[] ranks() {
        byte[] ranks = new byte[256];
        java.util.Arrays.fill(ranks, (byte) 127);
        for (int i = 0x80; i < 0xC0; i++) {
            ranks[i] = 100; // continuation bytes: rare in most files, but common where they occur
        }
        for (int i = 0; i < MOST_COMMON_FIRST.length(); i++) {
            ranks[MOST_COMMON_FIRST.charAt(i)] = (byte) i;
        }
        return ranks;
    }
}
