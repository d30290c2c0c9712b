package dev.oddbeacon.core.shape;

import java.util.Arrays;

/** What the variables of a shape stand for, by number, in tokens of a text. */
final class Bindings {
    private static final int FREE = -1;

    private final int[] starts;
    private final int[] ends;

    /** Of none yet. */
    Bindings(int variables) {
        starts = new int[variables];
        ends = new int[variables];
        clear();
    }

    int size() {
        return starts.length;
    }

    void clear() {
        Arrays.fill(starts, FREE);
    }

    /** Whether a variable stands for something; one with a negative number never does. */
    boolean has(int variable) {
        return variable >= 0 && starts[variable] != FREE;
    }

    void bind(int variable, int start, int end) {
        starts[variable] = start;
        ends[variable] = end;
    }

    void free(int variable) {
        starts[variable] = FREE;
    }

    int start(int variable) {
        return starts[variable];
    }

    /** The token behind what it stands for. */
    int end(int variable) {
        return ends[variable];
    }

    Bindings copy() {
        Bindings copy = new Bindings(size());
        copy.take(this);
        return copy;
    }

    /** Becomes as another of the same shape. */
    void take(Bindings other) {
        System.arraycopy(other.starts, 0, starts, 0, starts.length);
        System.arraycopy(other.ends, 0, ends, 0, ends.length);
    }
}
