package dev.oddbeacon.core.search;

import java.util.Arrays;
import java.util.function.IntUnaryOperator;

/** Sets of numbers as ascending arrays. */
public final class SortedInts {
    /** When one set is so many times smaller, its members are looked up in the other. */
    private static final int MUCH_SMALLER = 32;

    private SortedInts() {}

    public static int[] intersection(int[] a, int[] b) {
        int[] small = a.length <= b.length ? a : b;
        int[] large = small == a ? b : a;
        int[] result = new int[small.length];
        int count = 0;
        if (large.length / MUCH_SMALLER > small.length) {
            int from = 0;
            for (int value : small) {
                int found = Arrays.binarySearch(large, from, large.length, value);
                from = found >= 0 ? found : -found - 1;
                if (found >= 0) {
                    result[count++] = value;
                }
            }
            return Arrays.copyOf(result, count);
        }
        for (int i = 0, k = 0; i < small.length && k < large.length; ) {
            if (small[i] == large[k]) {
                result[count++] = small[i++];
                k++;
            } else if (small[i] < large[k]) {
                i++;
            } else {
                k++;
            }
        }
        return Arrays.copyOf(result, count);
    }

    public static int[] union(int[] a, int[] b) {
        int[] result = new int[a.length + b.length];
        int count = 0;
        int i = 0;
        int k = 0;
        while (i < a.length || k < b.length) {
            int next;
            if (k == b.length || i < a.length && a[i] <= b[k]) {
                next = a[i++];
                if (k < b.length && b[k] == next) {
                    k++;
                }
            } else {
                next = b[k++];
            }
            result[count++] = next;
        }
        return Arrays.copyOf(result, count);
    }

    /** Maps the members by a function that never descends. */
    public static int[] mapped(int[] values, IntUnaryOperator ascending) {
        int[] result = new int[values.length];
        int count = 0;
        for (int value : values) {
            int next = ascending.applyAsInt(value);
            if (count == 0 || result[count - 1] != next) {
                result[count++] = next;
            }
        }
        return Arrays.copyOf(result, count);
    }

    /** The index of the first member that is not below a value. */
    public static int firstFrom(int[] values, int value) {
        int found = Arrays.binarySearch(values, value);
        return found >= 0 ? found : -found - 1;
    }
}
