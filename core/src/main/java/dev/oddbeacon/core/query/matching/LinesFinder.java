package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.ScanStoppedException;
import dev.oddbeacon.core.text.Utf8;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.BooleanSupplier;

/** A finder that reads line by line, as strings: for what is told of characters rather than bytes. */
abstract class LinesFinder extends SpanListFinder {
    private final BooleanSupplier stop;

    LinesFinder(BooleanSupplier stop) {
        super(List.of());
        this.stop = stop;
    }

    /** Takes matches on a line, in UTF-16 units. */
    interface Taker {
        void take(int start, int end);
    }

    /** Whether the bytes of a line are worth reading; quick. */
    abstract boolean isWorthReading(MemorySegment text, long from, long to);

    /** Finds the matches on a line, ordered by where they start. */
    abstract void findOnLine(String line, Taker into);

    @Override
    final void find(MemorySegment text, long low, long high, long from, long to, SpanList into) {
        for (long start = from; start < to; ) {
            long end = Lines.end(text, start, to);
            if (isWorthReading(text, start, end)) {
                if (stop.getAsBoolean()) {
                    throw new ScanStoppedException();
                }
                find(text, start, end, into);
            }
            start = end + 1;
        }
    }

    private void find(MemorySegment text, long start, long end, SpanList into) {
        byte[] bytes = text.asSlice(start, end - start).toArray(ValueLayout.JAVA_BYTE);
        String line = new String(bytes, StandardCharsets.UTF_8);
        if (line.length() == bytes.length) {
            findOnLine(line, (from, to) -> into.add(start + from, start + to));
        } else {
            findOnLine(line, new Taker() {
                private int units;
                private long offset = start; // of so many units: what a match before has counted is not counted again

                @Override
                public void take(int from, int to) {
                    offset += Utf8.length(line, units, from);
                    units = from;
                    into.add(offset, offset + Utf8.length(line, from, to));
                }
            });
        }
    }
}
