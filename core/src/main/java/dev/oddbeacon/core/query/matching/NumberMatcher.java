package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.Bounds;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Numbers;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.BooleanSupplier;

/** Numbers between two bounds, however they are written; see {@link Numbers}. */
final class NumberMatcher implements TextMatcher {
    private final Bounds bounds;

    NumberMatcher(Bounds bounds) {
        this.bounds = bounds;
    }

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
        return new NumberFinder();
    }

    private final class NumberFinder extends SpanListFinder {
        NumberFinder() {
            super(List.of());
        }

        @Override
        void find(MemorySegment text, long low, long high, long from, long to, SpanList into) {
            long start = from;
            while (start < to) {
                long end = Math.min(to, Lines.end(text, start, to));
                if (hasDigit(text, start, end)) {
                    findOnLine(text, start, end, into);
                }
                start = end + 1;
            }
        }

        private void findOnLine(MemorySegment text, long start, long end, SpanList into) {
            byte[] bytes = text.asSlice(start, end - start).toArray(ValueLayout.JAVA_BYTE);
            String line = new String(bytes, StandardCharsets.UTF_8);
            boolean isAscii = line.length() == bytes.length;
            Numbers.Scan scan = new Numbers.Scan(line);
            while (scan.next()) {
                if (bounds.contain(scan.value())) {
                    int before = isAscii ? scan.start() : bytesOf(line, scan.start());
                    into.add(start + before, start + before + scan.end() - scan.start());
                }
            }
        }

        private static int bytesOf(String line, int chars) {
            return line.substring(0, chars).getBytes(StandardCharsets.UTF_8).length;
        }

        private static boolean hasDigit(MemorySegment text, long from, long to) {
            for (long i = from; i < to; i++) {
                byte b = text.get(ValueLayout.JAVA_BYTE, i);
                if (b >= '0' && b <= '9') {
                    return true;
                }
            }
            return false;
        }
    }
}
