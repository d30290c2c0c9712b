package dev.oddbeacon.core.text;

import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.charset.StandardCharsets;

/**
 * Finds a literal text in UTF-8, minding or ignoring case. Immutable, so that many threads may share one.
 *
 * <p>The scan looks for two bytes of the literal at once; where both stand, the run around them and then the rest
 * of the literal is compared (see {@link Literal}). Cost: one pass over the text, at the speed of {@link ByteScan}
 * while candidates are rare.
 */
public final class LiteralScanner {
    private final Literal literal;
    private final ByteScan scan;
    private final int anchorIndex;
    private final ByteScan.Anchor anchor;
    private final int codePointsInRun;
    private final boolean[] leads;

    private LiteralScanner(Literal literal, ByteScan scan) {
        this.literal = literal;
        this.scan = scan;
        this.codePointsInRun = literal.runLength();
        if (literal.run().length > 0) {
            int[] indexes = literal.anchorIndexes();
            this.anchorIndex = indexes[0];
            this.anchor = literal.anchor(indexes);
            this.leads = new boolean[0];
        } else {
            this.anchorIndex = 0;
            this.anchor = new ByteScan.Anchor((byte) 0, (byte) 0, (byte) 0, (byte) 0, 0);
            this.leads = leadBytes(literal.codePoints()[0]);
        }
    }

    /** @throws IllegalArgumentException if the text is empty */
    public static LiteralScanner of(String text, boolean ignoreCase) {
        return of(text, ignoreCase, ByteScan.CHOSEN);
    }

    static LiteralScanner of(String text, boolean ignoreCase, ByteScan scan) {
        return new LiteralScanner(Literal.of(text, ignoreCase), scan);
    }

    /** Start of the first match that lies wholly in [from, to), or -1. Both must be on code point boundaries. */
    public long find(MemorySegment text, long from, long to) {
        return literal.run().length == 0 ? findByLead(text, from, to) : findByRun(text, from, to);
    }

    /** End of the match that starts at an offset returned by {@link #find}. */
    public long end(MemorySegment text, long start, long to) {
        return literal.ignoresCase() ? forward(text, start, to, 0) : start + literal.run().length;
    }

    private long findByRun(MemorySegment text, long from, long to) {
        byte[] run = literal.run();
        long last = to - run.length + 1; // one past the last offset where the run may start
        long position = from;
        while (position < last) {
            long found = scan.findPair(text, position + anchorIndex, last + anchorIndex, anchor);
            if (found < 0) {
                return -1;
            }
            long runStart = found - anchorIndex;
            if (isRun(text, runStart)) {
                long start = backward(text, runStart, from);
                if (start >= 0 && forward(text, runStart + run.length, to, literal.runStart() + codePointsInRun) >= 0) {
                    return start;
                }
            }
            position = runStart + 1;
        }
        return -1;
    }

    private boolean isRun(MemorySegment text, long offset) {
        byte[] run = literal.run();
        byte[] caseBits = literal.caseBits();
        for (int i = 0; i < run.length; i++) {
            if ((text.get(ValueLayout.JAVA_BYTE, offset + i) | caseBits[i]) != run[i]) {
                return false;
            }
        }
        return true;
    }

    /** Start of the code points before the run, if they stand before an offset and not below low; else -1. */
    private long backward(MemorySegment text, long offset, long low) {
        int[] codePoints = literal.codePoints();
        long position = offset;
        for (int i = literal.runStart() - 1; i >= 0; i--) {
            if (position <= low) {
                return -1;
            }
            long start = Utf8.startBefore(text, position, low);
            if (CaseFolding.fold(Utf8.at(text, start, position)) != codePoints[i]) {
                return -1;
            }
            position = start;
        }
        return position;
    }

    /** End of the code points from an index on, if they stand at an offset; else -1. */
    private long forward(MemorySegment text, long offset, long to, int index) {
        int[] codePoints = literal.codePoints();
        long position = offset;
        for (int i = index; i < codePoints.length; i++) {
            if (position >= to) {
                return -1;
            }
            int length = Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, position));
            if (position + length > to || CaseFolding.fold(Utf8.at(text, position, to)) != codePoints[i]) {
                return -1;
            }
            position += length;
        }
        return position;
    }

    private long findByLead(MemorySegment text, long from, long to) {
        for (long i = from; i < to; i++) {
            if (leads[text.get(ValueLayout.JAVA_BYTE, i) & 0xFF] && forward(text, i, to, 0) >= 0) {
                return i;
            }
        }
        return -1;
    }

    /** First bytes of all forms of a folded code point. */
    private static boolean[] leadBytes(int folded) {
        boolean[] leads = new boolean[256];
        leads[leadByte(folded)] = true;
        for (int other : CaseFolding.others(folded)) {
            leads[leadByte(other)] = true;
        }
        return leads;
    }

    private static int leadByte(int codePoint) {
        return Character.toString(codePoint).getBytes(StandardCharsets.UTF_8)[0] & 0xFF;
    }
}
