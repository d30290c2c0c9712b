package dev.oddbeacon.core.text.regex;

/**
 * A set of steps that remembers the order in which they came, and is cleared at no cost (Briggs and Torczon, "An
 * Efficient Representation for Sparse Sets", 1993).
 */
final class StepSet {
    private final int[] dense;
    private final int[] sparse;
    private int size;

    StepSet(int capacity) {
        dense = new int[capacity];
        sparse = new int[capacity];
    }

    /** @return whether it was not there before */
    boolean add(int step) {
        if (contains(step)) {
            return false;
        }
        sparse[step] = size;
        dense[size++] = step;
        return true;
    }

    boolean contains(int step) {
        int at = sparse[step];
        return at < size && dense[at] == step;
    }

    int get(int index) {
        return dense[index];
    }

    int size() {
        return size;
    }

    void clear() {
        size = 0;
    }
}
