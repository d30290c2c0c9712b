package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/**
 * Finds the lines on which a {@link Program} matches, looking at each byte once. For one thread.
 *
 * <p>A deterministic automaton over bytes whose states are built when they are first reached (Thompson's idea in grep;
 * Aho, Sethi and Ullman, "Compilers", 1986). A state is the set of steps that may come next. It knows of the place
 * before it whether it is the start of the line and whether a word part precedes; what an edge asks of the byte that
 * follows is settled when that byte is read. A line feed ends the line and leads back to the first state.
 *
 * <p>Memory is bounded: when the table is full it is emptied and begun again, so that the cost is at worst that of
 * following all steps at each byte, linear in the text. Bytes that no step tells apart share a column of the table.
 */
final class LineAutomaton {
    private static final int MOST_CELLS = 1 << 18;
    private static final int MOST_MEMBERS = 1 << 18;
    private static final int WORK_BETWEEN_QUESTIONS = 1 << 16;
    private static final int LANES = 4;
    private static final int BUFFER = 1 << 18;
    private static final int WORTH_LANES = 2_048;
    private static final int WORTH_COPYING = 128;
    private static final int UNKNOWN = -1;
    private static final int MATCHED = -2;
    private static final int DEAD = -3;
    private static final int AT_START = 1;
    private static final int AFTER_WORD = 2;

    private record State(int[] members, int flags) {
        @Override
        public boolean equals(Object other) {
            return other instanceof State state && flags == state.flags && Arrays.equals(members, state.members);
        }

        @Override
        public int hashCode() {
            return Arrays.hashCode(members) * 31 + flags;
        }
    }

    private final Program program;
    private final BooleanSupplier stop;
    private final byte[] classOf;
    private final int[] byteOfClass = new int[256];
    private final int shift; // a state's number times this power of two is its row
    private final int feed;
    private final int endClass;
    private final boolean deadAfterStart;
    private final boolean matchesAll;
    private final StepSet reached;
    private final StepSet following;
    private final int[] stack;
    private final Map<State, Integer> rows = new HashMap<>();
    private State[] states = new State[64];
    private int[] table = new int[0];
    private byte[] buffer = {}; // the text at hand, once anything is counted in lanes
    private Optional<SmallAutomaton> small; // null before it is asked for
    private int members;
    private int begun; // how often the table was emptied
    private int work;

    /** @param stop asked now and then while states are built */
    LineAutomaton(Program program, BooleanSupplier stop) {
        this.program = program;
        this.stop = stop;
        this.classOf = program.classOf();
        for (int value = 255; value >= 0; value--) {
            byteOfClass[classOf[value] & 0xFF] = value;
        }
        this.feed = classOf['\n'] & 0xFF;
        this.endClass = program.classes();
        this.shift = 32 - Integer.numberOfLeadingZeros(endClass);
        this.reached = new StepSet(program.steps());
        this.following = new StepSet(program.steps());
        this.stack = new int[2 * program.steps() + 2];
        this.matchesAll = !follow(program.start(), reached, -1);
        this.deadAfterStart = program.asksForLineStart() && isDeadAfterStart();
        begin();
    }

    /** The same for lines in ASCII, if it has few states there; where most lines are left soon, it is no faster. */
    private Optional<SmallAutomaton> small() {
        if (small == null) {
            small = matchesAll || deadAfterStart ? Optional.empty() : inAscii();
        }
        return small;
    }

    private Optional<SmallAutomaton> inAscii() {
        begin(); // what other lines have led to is not counted
        List<int[]> targets = new ArrayList<>();
        for (int number = 0; number < rows.size(); number++) {
            int[] ofState = new int[0x80];
            for (int value = 0; value < ofState.length; value++) {
                int column = classOf[value] & 0xFF;
                if (table[(number << shift) + column] == UNKNOWN) {
                    build(number << shift, column);
                }
                if (rows.size() + 1 > SmallAutomaton.MOST_STATES) {
                    return Optional.empty();
                }
                ofState[value] = table[(number << shift) + column];
            }
            targets.add(ofState);
        }
        int last = rows.size();
        for (int[] ofState : targets) {
            Arrays.setAll(ofState, value -> ofState[value] == MATCHED ? last : ofState[value] >> shift);
        }
        return Optional.of(new SmallAutomaton(targets.toArray(int[][]::new)));
    }

    /** Whether {@link #count} tells lines by a shift for each byte. */
    boolean isSmall() {
        return small().isPresent();
    }

    private boolean isDeadAfterStart() {
        reached.clear();
        boolean isDead = follow(program.start(), reached, -2);
        for (int i = 0; i < reached.size(); i++) {
            isDead &= program.kind(reached.get(i)) != Program.BYTES;
        }
        return isDead;
    }

    private void begin() {
        begun++;
        rows.clear();
        members = 0;
        table = new int[Math.min(MOST_CELLS, 64 << shift)];
        row(new State(new int[0], program.asksForLineStart() ? AT_START : 0));
    }

    /**
     * Looks for a line with a match.
     *
     * @param from the start of a line
     * @param to the end of a line or of the text
     * @return an offset on the next such line, its line feed or the end of the text included; -1 if there is none
     * @throws ScanStoppedException if it was told to stop
     */
    long find(MemorySegment text, long from, long to) {
        if (from >= to || matchesAll) {
            return from < to ? from : -1;
        }
        int row = 0;
        long at = from;
        while (at < to) {
            int next = table[row + (classOf[text.get(ValueLayout.JAVA_BYTE, at) & 0xFF] & 0xFF)];
            if (next >= 0) {
                row = next;
                at++;
                continue;
            }
            if (next == UNKNOWN) {
                row = build(row, classOf[text.get(ValueLayout.JAVA_BYTE, at) & 0xFF] & 0xFF);
                continue;
            }
            if (next == MATCHED) {
                return at;
            }
            at = Lines.end(text, at, to) + 1;
            row = 0;
        }
        if (at > to || text.get(ValueLayout.JAVA_BYTE, to - 1) == '\n') {
            return -1; // there is no line after the last line feed
        }
        if (table[row + endClass] == UNKNOWN) {
            row = build(row, endClass);
        }
        return table[row + endClass] == MATCHED ? to : -1;
    }

    /**
     * Counts the lines with a match. The same as {@link #find} again and again, but faster: by a shift for each byte if
     * it has few states. Else each step waits for the table, so four stretches of the text are followed at once; but where
     * lines are left soon, going to the next one is faster than following them.
     */
    int count(MemorySegment text, long from, long to) {
        if (matchesAll) {
            return Lines.count(text, from, to);
        }
        int count = 0;
        long at = from;
        while (!deadAfterStart && to - at >= (isSmall() ? WORTH_COPYING : WORTH_LANES)) {
            buffer = buffer.length == 0 ? new byte[BUFFER] : buffer;
            long end = to - at <= buffer.length ? to : Lines.start(text, at + buffer.length, at);
            if (end == at) {
                break; // one very long line
            }
            MemorySegment.copy(text, ValueLayout.JAVA_BYTE, at, buffer, 0, (int) (end - at));
            int length = (int) (end - at);
            if (isSmall()) {
                MemorySegment copy = MemorySegment.ofArray(buffer);
                count += small().orElseThrow()
                        .count(buffer, length, (start, feed) -> find(copy, start, Math.min(feed + 1, length)) >= 0);
            } else {
                count += countInLanes(length);
            }
            at = end;
        }
        for (long found = find(text, at, to); found >= 0; found = find(text, at, to)) {
            count++;
            at = Lines.end(text, found, to) + 1;
        }
        return count;
    }

    private int countInLanes(int length) {
        MemorySegment text = MemorySegment.ofArray(buffer);
        int quarter = length / LANES;
        int[] at = new int[LANES];
        int[] end = new int[LANES];
        int[] row = new int[LANES];
        for (int lane = 0; lane < LANES; lane++) {
            at[lane] = lane == 0 ? 0 : end[lane - 1];
            end[lane] = lane == LANES - 1
                    ? length
                    : (int) Lines.start(text, Math.max(at[lane], quarter * (lane + 1)), at[lane]);
        }
        int begunBefore = begun;
        int count = 0;
        while (true) {
            int steps = Integer.MAX_VALUE;
            for (int lane = 0; lane < LANES; lane++) {
                steps = Math.min(steps, end[lane] - at[lane]);
            }
            if (steps <= 0 || begun != begunBefore) {
                break;
            }
            follow(at, row, steps);
            for (int lane = 0; lane < LANES; lane++) {
                if (at[lane] >= end[lane]) {
                    continue;
                }
                int column = classOf[buffer[at[lane]] & 0xFF] & 0xFF;
                int next = table[row[lane] + column];
                if (next == UNKNOWN) {
                    row[lane] = build(row[lane], column);
                    if (begun != begunBefore) {
                        break; // the rows of the other lanes mean nothing any more
                    }
                } else if (next == MATCHED || next == DEAD) {
                    count += next == MATCHED ? 1 : 0;
                    at[lane] = (int) Lines.end(text, at[lane], end[lane]) + 1;
                    row[lane] = 0;
                }
            }
        }
        for (int lane = 0; lane < LANES; lane++) { // the rest, one after the other, from the start of the line
            long low = lane == 0 ? 0 : end[lane - 1];
            long position = at[lane] >= end[lane] && row[lane] == 0
                    ? end[lane]
                    : Lines.start(text, Math.min(at[lane], end[lane]), low);
            for (long found = find(text, position, end[lane]); found >= 0; found = find(text, position, end[lane])) {
                count++;
                position = Lines.end(text, found, end[lane]) + 1;
            }
        }
        return count;
    }

    /** Follows the table in all lanes, until one of them meets something that is no row. */
    private void follow(int[] at, int[] row, int steps) {
        byte[] text = buffer;
        byte[] column = classOf;
        int[] cells = table;
        int at0 = at[0];
        int at1 = at[1];
        int at2 = at[2];
        int at3 = at[3];
        int row0 = row[0];
        int row1 = row[1];
        int row2 = row[2];
        int row3 = row[3];
        for (int left = steps; left > 0; left--) {
            int next0 = cells[row0 + (column[text[at0] & 0xFF] & 0xFF)];
            int next1 = cells[row1 + (column[text[at1] & 0xFF] & 0xFF)];
            int next2 = cells[row2 + (column[text[at2] & 0xFF] & 0xFF)];
            int next3 = cells[row3 + (column[text[at3] & 0xFF] & 0xFF)];
            if ((next0 | next1 | next2 | next3) < 0) {
                break;
            }
            row0 = next0;
            row1 = next1;
            row2 = next2;
            row3 = next3;
            at0++;
            at1++;
            at2++;
            at3++;
        }
        at[0] = at0;
        at[1] = at1;
        at[2] = at2;
        at[3] = at3;
        row[0] = row0;
        row[1] = row1;
        row[2] = row2;
        row[3] = row3;
    }

    /** Fills in one cell. @return the row, which is another one if the table had to be emptied */
    private int build(int row, int column) {
        State state = states[row >> shift];
        int target = target(state, column);
        if (target == UNKNOWN) { // no room for another state
            begin();
            int again = row(state);
            table[again + column] = target(state, column);
            return again;
        }
        table[row + column] = target;
        return row;
    }

    private int target(State state, int column) {
        boolean atEnd = column == endClass || column == feed;
        int value = column == endClass ? '\n' : byteOfClass[column];
        boolean wordBefore = (state.flags & AFTER_WORD) != 0;
        boolean wordAfter = !atEnd && Program.isWordByte(value);
        int holds = 0;
        for (Regex.EdgeKind kind : Regex.EdgeKind.values()) {
            boolean yes = switch (kind) {
                case ANYWHERE -> true;
                case LINE_START -> (state.flags & AT_START) != 0;
                case LINE_END -> atEnd;
                case WORD_EDGE -> wordBefore != wordAfter;
                case NO_WORD_EDGE -> wordBefore == wordAfter;
                case NOT_IN_WORD -> !(wordBefore && wordAfter);
            };
            holds |= yes ? 1 << kind.ordinal() : 0;
        }
        reached.clear();
        for (int member : state.members) {
            if (!follow(member, reached, holds)) {
                return MATCHED;
            }
        }
        boolean insideCodePoint = value >= 0x80 && value < 0xC0;
        if (!insideCodePoint && !follow(program.start(), reached, holds)) {
            return MATCHED;
        }
        if (atEnd) {
            return 0;
        }
        following.clear();
        for (int i = 0; i < reached.size(); i++) {
            int step = reached.get(i);
            if (program.kind(step) == Program.BYTES
                    && program.takes(step, value)
                    && !follow(program.next(step), following, -1)) {
                return MATCHED;
            }
        }
        countWork(reached.size() + following.size());
        return row(new State(members(following), program.asksForWords() && wordAfter ? AFTER_WORD : 0));
    }

    /**
     * Adds all steps that can be reached from one without a byte.
     *
     * @param holds bits of the kinds of edges that hold; -1 to leave edges unfollowed, -2 to follow all but line starts
     * @return false if the end can be reached
     */
    private boolean follow(int first, StepSet set, int holds) {
        int depth = 0;
        stack[depth++] = first;
        while (depth > 0) {
            int step = stack[--depth];
            if (!set.add(step)) {
                continue;
            }
            switch (program.kind(step)) {
                case Program.MATCH -> {
                    return false;
                }
                case Program.SPLIT -> {
                    stack[depth++] = program.other(step);
                    stack[depth++] = program.next(step);
                }
                case Program.EDGE -> {
                    Regex.EdgeKind kind = program.edge(step);
                    boolean follows = holds == -2
                            ? kind != Regex.EdgeKind.LINE_START
                            : holds != -1 && (holds & 1 << kind.ordinal()) != 0;
                    if (follows) {
                        stack[depth++] = program.next(step);
                    }
                }
                default -> {}
            }
        }
        return true;
    }

    private int[] members(StepSet set) {
        int[] result = new int[set.size()];
        int count = 0;
        for (int i = 0; i < set.size(); i++) {
            if (program.kind(set.get(i)) != Program.SPLIT) {
                result[count++] = set.get(i);
            }
        }
        result = Arrays.copyOf(result, count);
        Arrays.sort(result);
        return result;
    }

    /** The row of a state, {@link #DEAD}, or {@link #UNKNOWN} if there is no room for it. */
    private int row(State state) {
        if (deadAfterStart && state.members.length == 0 && (state.flags & AT_START) == 0) {
            return DEAD;
        }
        Integer known = rows.get(state);
        if (known != null) {
            return known;
        }
        int number = rows.size();
        int row = number << shift;
        boolean isFull = row + (1 << shift) > MOST_CELLS || members + state.members.length > MOST_MEMBERS;
        if (isFull && number > 1) { // the first state and the current one always fit
            return UNKNOWN;
        }
        if (row + (1 << shift) > table.length) {
            table = Arrays.copyOf(table, Math.max(row + (1 << shift), table.length * 2));
        }
        if (number == states.length) {
            states = Arrays.copyOf(states, number * 2);
        }
        Arrays.fill(table, row, row + (1 << shift), UNKNOWN);
        members += state.members.length;
        states[number] = state;
        rows.put(state, row);
        return row;
    }

    private void countWork(int done) {
        work += done;
        if (work > WORK_BETWEEN_QUESTIONS) {
            work = 0;
            if (stop.getAsBoolean()) {
                throw new ScanStoppedException();
            }
        }
    }
}
