package dev.oddbeacon.bench;

import java.util.ArrayList;
import java.util.List;

/** Several measurements of one thing. */
final class Figures {
    private final List<Double> values = new ArrayList<>();

    synchronized void add(double value) {
        values.add(value);
    }

    synchronized int count() {
        return values.size();
    }

    /** @param share 0 for the least, 0.5 for the median, 1 for the largest */
    synchronized double at(double share) {
        values.sort(null);
        return values.get((int) Math.min(values.size() - 1, Math.floor(share * values.size())));
    }
}
