package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.Bounds;
import dev.oddbeacon.core.text.Numbers;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.function.BooleanSupplier;

/** Numbers between two bounds, however they are written; see {@link Numbers}. */
record NumberMatcher(Bounds bounds) implements TextMatcher {
    @Override
    public Plan plan() {
        return new Plan.Numbered(bounds);
    }

    @Override
    public boolean staysOnLine() {
        return true;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        return new LinesFinder(stop) {
            @Override
            boolean isWorthReading(MemorySegment text, long from, long to) {
                for (long i = from; i < to; i++) {
                    byte b = text.get(ValueLayout.JAVA_BYTE, i);
                    if (b >= '0' && b <= '9') {
                        return true;
                    }
                }
                return false;
            }

            @Override
            void findOnLine(String line, Taker into) {
                Numbers.Scan scan = new Numbers.Scan(line);
                while (scan.next()) {
                    if (bounds.contain(scan.value())) {
                        into.take(scan.start(), scan.end());
                    }
                }
            }
        };
    }
}
