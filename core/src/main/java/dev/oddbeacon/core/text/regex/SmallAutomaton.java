package dev.oddbeacon.core.text.regex;

import java.lang.invoke.MethodHandles;
import java.lang.invoke.VarHandle;
import java.nio.ByteOrder;

/**
 * An automaton of few states, followed through ASCII text without a branch: a state is a number of bits, and each byte
 * has a word in which, that many bits from the right, the next state stands. So a step is a shift, and waits for nothing
 * but the step before. Lines that hold other bytes are asked of somebody else. Immutable.
 */
final class SmallAutomaton {
    private static final int BITS = 6; // enough for a shift of a word
    /** How many states a word has room for. */
    static final int MOST_STATES = Long.SIZE / BITS;

    private static final int MASK = (1 << BITS) - 1;

    private static final VarHandle BYTES = MethodHandles.byteArrayViewVarHandle(long[].class, ByteOrder.LITTLE_ENDIAN);
    private static final int AT_ONCE = Long.BYTES;

    private final long[] next; // by byte
    private final int last; // the state that is never left

    /**
     * @param targets by state and byte of ASCII, states; one more than there are means that the line matches. It is never
     * left again, and is reached as well where somebody else has to be asked
     */
    SmallAutomaton(int[][] targets) {
        int matched = targets.length;
        this.last = BITS * matched;
        this.next = new long[256];
        for (int value = 0; value < next.length; value++) {
            for (int state = 0; state <= matched; state++) {
                int target = state == matched || value >= 0x80 ? matched : targets[state][value];
                next[value] |= (long) BITS * target << BITS * state;
            }
        }
    }

    /** Whether a line matches of which this automaton cannot tell. */
    @FunctionalInterface
    interface Unsure {
        /** @param end its line feed, or the end of the text */
        boolean matches(int start, int end);
    }

    /** A stretch of whole lines that is followed. */
    private static final class Lane {
        private final int end;
        private int at;
        private int line; // where the line at hand starts, or one before it
        private long state;

        Lane(int start, int end) {
            this.at = start;
            this.line = start;
            this.end = end;
        }

        boolean hasRoom() {
            return end - at >= AT_ONCE;
        }
    }

    /**
     * Counts lines. Two stretches are followed at once, as each step waits for the one before.
     *
     * @param text whole lines, but for the last one, which may lack its line feed
     */
    int count(byte[] text, int length, Unsure unsure) {
        int middle = Math.min(length, feed(text, length / 2, length) + 1);
        Lane first = new Lane(0, middle);
        Lane second = new Lane(middle, length);
        int count = 0;
        while (first.hasRoom() && second.hasRoom()) {
            follow(text, first, second);
            count += step(text, first, unsure) + step(text, second, unsure);
        }
        count += rest(text, first, unsure) + rest(text, second, unsure);
        boolean isOpen = length > 0 && text[length - 1] != '\n' && second.line < length;
        return count + (isOpen && (next['\n'] >>> second.state & MASK) == last ? 1 : 0);
    }

    /** Goes on until one of them is about to reach the last state, or to its end. */
    private void follow(byte[] text, Lane first, Lane second) {
        int i = first.at;
        int j = second.at;
        long one = first.state;
        long other = second.state;
        for (int times = Math.min(first.end - i, second.end - j) / AT_ONCE; times > 0; times--) {
            long here = (long) BYTES.get(text, i); // the first byte rightmost
            long there = (long) BYTES.get(text, j);
            long a = one;
            long b = other;
            for (int k = 0; k < AT_ONCE; k++) {
                a = next[(int) here & 0xFF] >>> a;
                b = next[(int) there & 0xFF] >>> b;
                here >>>= Byte.SIZE;
                there >>>= Byte.SIZE;
            }
            if ((a & MASK) == last || (b & MASK) == last) {
                break;
            }
            one = a;
            other = b;
            i += AT_ONCE;
            j += AT_ONCE;
        }
        first.at = i;
        first.state = one;
        second.at = j;
        second.state = other;
    }

    /** Counts the lines of what is left of a stretch. */
    private int rest(byte[] text, Lane lane, Unsure unsure) {
        int count = 0;
        while (lane.at < lane.end) {
            follow(text, lane);
            count += step(text, lane, unsure);
        }
        return count;
    }

    /** Goes on until it is about to reach the last state, or to its end. */
    private void follow(byte[] text, Lane lane) {
        long state = lane.state;
        int at = lane.at;
        for (; at < lane.end; at++) {
            long after = next[text[at] & 0xFF] >>> state;
            if ((after & MASK) == last) {
                break;
            }
            state = after;
        }
        lane.at = at;
        lane.state = state;
    }

    /**
     * Goes on by a few bytes, or to the end of the line if it matches or has to be asked of somebody else.
     *
     * @return how many lines match: none or one
     */
    private int step(byte[] text, Lane lane, Unsure unsure) {
        long state = lane.state;
        int end = Math.min(lane.end, lane.at + AT_ONCE);
        for (int at = lane.at; at < end; at++) {
            state = next[text[at] & 0xFF] >>> state;
            if ((state & MASK) == last) {
                int feed = feed(text, at, lane.end);
                boolean matches = text[at] >= 0 || unsure.matches(start(text, at, lane.line), feed);
                lane.at = Math.min(feed + 1, lane.end);
                lane.line = feed + 1;
                lane.state = 0;
                return matches ? 1 : 0;
            }
        }
        lane.at = end;
        lane.state = state;
        return 0;
    }

    private static int start(byte[] text, int at, int low) {
        int start = at;
        while (start > low && text[start - 1] != '\n') {
            start--;
        }
        return start;
    }

    private static int feed(byte[] text, int from, int length) {
        int at = from;
        while (at < length && text[at] != '\n') {
            at++;
        }
        return at;
    }
}
