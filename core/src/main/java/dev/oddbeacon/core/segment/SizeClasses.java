package dev.oddbeacon.core.segment;

/** Files of the index fall into classes by their size, each eight times the one before; eight of a class become one. */
public final class SizeClasses {
    /** Number of files of one class that are merged into one. */
    public static final int FAN_IN = 8;

    private static final long SMALLEST = 1L << 17;

    private SizeClasses() {}

    /** The class of a size in bytes, from 0. */
    public static int of(long bytes) {
        int number = 0;
        for (long limit = SMALLEST; bytes >= limit; limit *= FAN_IN) {
            number++;
        }
        return number;
    }
}
