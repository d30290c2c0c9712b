package dev.oddbeacon.core.query.matching;

import java.lang.foreign.MemorySegment;
import java.util.function.BooleanSupplier;

/** A text clause ready to be run. Immutable; each thread takes a {@link Finder} of its own. */
public interface TextMatcher {
    /** The plan for the index. */
    Plan plan();

    /** Whether no match holds a line feed. */
    boolean staysOnLine();

    /**
     * @param stop asked now and then during long work; once it says yes, the finder throws
     *        {@link dev.oddbeacon.core.text.ScanStoppedException}
     */
    Finder finder(BooleanSupplier stop);

    /** Goes through the matches in a text from left to right; ordered by where they start. For one thread. */
    interface Finder {
        /** Goes to a file; only finders that ask for its parts need to know. */
        default void enter(FileParts parts) {}

        /**
         * Starts over.
         *
         * @param low where the text of the file starts
         * @param high where it ends
         * @param from where to look, the start of a line
         * @param to where to stop, the end of a line or of the text
         */
        void begin(MemorySegment text, long low, long high, long from, long to);

        /** Goes to the next match. @return false if there is none */
        boolean next();

        /** Goes to the end of the line on which the match ends, so that the next one is on another line. */
        void skipLine();

        /**
         * Counts the lines that matches touch, from where it stands to the end; only of matchers that stay on lines.
         */
        default int countLines() {
            int count = 0;
            while (next()) {
                count++;
                skipLine();
            }
            return count;
        }

        /** Offset of the match. */
        long start();

        /** Offset after the match; equal to its start for an empty one. */
        long end();
    }
}
