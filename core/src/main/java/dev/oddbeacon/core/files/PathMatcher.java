package dev.oddbeacon.core.files;

import dev.oddbeacon.core.search.Excerpt.Span;
import java.util.Arrays;
import java.util.List;
import java.util.function.IntConsumer;

/** Decides one path after another. For one thread. */
interface PathMatcher {
    /** The value of {@link #points} for a path that does not match. */
    int NO_MATCH = Integer.MIN_VALUE;

    /** Points for how well a path fits, judged by its characters alone; {@link #NO_MATCH} if it does not. */
    int points(Path path);

    /** Points for paths that contain the letters in order, but not as a run. */
    default int looselyPoints(Path path) {
        return NO_MATCH;
    }

    /** The matched bytes of a path, as ascending offsets. */
    List<Span> spans(Path path);

    /** Tells paths that may match, ascending. */
    default void candidates(PathTable table, IntConsumer consumer) {
        for (int number = 0; number < table.count(); number++) {
            consumer.accept(number);
        }
    }

    /** An upper bound of {@link #looselyPoints}. */
    default void looseCandidates(PathTable table, IntConsumer consumer) {}

    /** A path, or one of its folders, as it stands in a {@link PathTable}. */
    final class Path {
        byte[] bytes = {};
        int start;
        int length;
        byte[] folded = {};
        int foldedStart;
        int foldedLength;
        int name; // where the name starts, from the start

        void set(
                byte[] ofBytes, int newStart, int newLength, byte[] ofFolded, int newFoldedStart, int newFoldedLength) {
            bytes = ofBytes;
            start = newStart;
            length = newLength;
            folded = ofFolded;
            foldedStart = newFoldedStart;
            foldedLength = newFoldedLength;
            name = lastSlash(bytes, start, length) + 1;
        }

        /** Offset of the last slash of a path, from its start; -1 if it has none. */
        static int lastSlash(byte[] bytes, int start, int length) {
            int slash = length - 1;
            while (slash >= 0 && bytes[start + slash] != '/') {
                slash--;
            }
            return slash;
        }

        /** Lets another path stand for one of the folders of this one. */
        void folder(int end, Path into) {
            if (foldedLength == length) {
                into.set(bytes, start, end, folded, foldedStart, end);
            } else {
                byte[] own = PathTable.folded(Arrays.copyOfRange(bytes, start, start + end), end);
                into.set(bytes, start, end, own, 0, own.length);
            }
        }

        /** Whether a word starts at a byte: after a sign, at the hump of a camel, at a digit after a letter. */
        boolean startsWord(int at) {
            if (at == 0) {
                return true;
            }
            int before = bytes[start + at - 1];
            int here = bytes[start + at];
            if (!isWordPart(before)) {
                return isWordPart(here);
            }
            return isCapital(here) && !isCapital(before)
                    || isDigit(here) && !isDigit(before)
                    || isCapital(here)
                            && at + 1 < length
                            && bytes[start + at + 1] >= 'a'
                            && bytes[start + at + 1] <= 'z';
        }

        private static boolean isWordPart(int c) {
            return c >= 'a' && c <= 'z' || isCapital(c) || isDigit(c) || c < 0;
        }

        private static boolean isCapital(int c) {
            return c >= 'A' && c <= 'Z';
        }

        private static boolean isDigit(int c) {
            return c >= '0' && c <= '9';
        }
    }
}
