package dev.oddbeacon.core.segment;

import java.util.Arrays;

/**
 * Sorts strings that lie one after the other in an array of bytes.
 *
 * @param starts of string n; it ends where the next one starts
 * @param folded whether ASCII capitals count as small letters first; of strings that are equal so, capitals come first
 */
record ByteStrings(byte[] arena, int[] starts, boolean folded) {
    /** The numbers of the first strings, in the order of their bytes; no two are equal. */
    int[] order(int count) {
        int[] order = new int[count];
        Arrays.setAll(order, number -> number);
        sort(order, 0, count, 0);
        return order;
    }

    /**
     * Sorts strings that share their first bytes, by the next byte in three parts, and each part by itself (Bentley and
     * Sedgewick, "Fast Algorithms for Sorting and Searching Strings", 1997).
     */
    private void sort(int[] order, int from, int until, int depth) {
        int low = from;
        int high = until;
        int shared = depth;
        while (high - low > 1) {
            int pivot = byteAt(order[(low + high) >>> 1], shared);
            int less = low;
            int more = high;
            for (int i = low; i < more; ) {
                int value = byteAt(order[i], shared);
                if (value < pivot) {
                    swap(order, less++, i++);
                } else if (value > pivot) {
                    swap(order, i, --more);
                } else {
                    i++;
                }
            }
            sort(order, low, less, shared);
            sort(order, more, high, shared);
            if (pivot < 0) {
                sortExactly(order, less, more); // all of them have ended
                return;
            }
            low = less;
            high = more;
            shared++;
        }
    }

    /** Sorts the few strings that differ in nothing but their capitals. */
    private void sortExactly(int[] order, int from, int until) {
        for (int i = from + 1; i < until; i++) {
            for (int k = i;
                    k > from
                            && Arrays.compareUnsigned(
                                            arena,
                                            starts[order[k]],
                                            starts[order[k] + 1],
                                            arena,
                                            starts[order[k - 1]],
                                            starts[order[k - 1] + 1])
                                    < 0;
                    k--) {
                swap(order, k, k - 1);
            }
        }
    }

    /** The byte at a depth of a string, -1 behind its end. */
    private int byteAt(int number, int depth) {
        int at = starts[number] + depth;
        if (at >= starts[number + 1]) {
            return -1;
        }
        int value = arena[at] & 0xFF;
        return folded && value >= 'A' && value <= 'Z' ? value | 0x20 : value;
    }

    private static void swap(int[] order, int a, int b) {
        int number = order[a];
        order[a] = order[b];
        order[b] = number;
    }
}
