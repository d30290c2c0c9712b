package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.RegionCursor;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.source.Region;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;

/** The head of a declaration, on one line: without its comments, its body and more blanks than needed. */
final class Signature {
    private static final int LONGEST = 300;

    private Signature() {}

    static String of(SegmentReader segment, int blob, Declared declared) {
        RegionCursor regions = new RegionCursor(segment);
        regions.begin(blob);
        byte[] bytes = new byte[LONGEST];
        int size = 0;
        boolean blank = false;
        long end = Math.max(declared.headEnd(), declared.nameEnd());
        for (long at = declared.start(); at < end && size < LONGEST - 1; at++) {
            if (regions.region(at) == Region.COMMENT) {
                at = Math.min(end, regions.end()) - 1;
                blank = true;
                continue;
            }
            byte c = segment.content().get(ValueLayout.JAVA_BYTE, at);
            if (c >= 0 && c <= ' ') {
                blank = true;
                continue;
            }
            if (blank && size > 0) {
                bytes[size++] = ' ';
            }
            blank = false;
            bytes[size++] = c;
        }
        while (size > 0 && (bytes[size - 1] == '{' || bytes[size - 1] == ' ' || bytes[size - 1] == ';')) {
            size--;
        }
        return new String(bytes, 0, size, StandardCharsets.UTF_8).replace("\uFFFD", "");
    }
}
