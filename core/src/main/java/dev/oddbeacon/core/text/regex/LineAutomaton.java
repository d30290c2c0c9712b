package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.ScanStoppedException;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
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
    private int members;
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
        reached.clear();
        this.matchesAll = !follow(program.start(), reached, -1);
        this.deadAfterStart = program.asksForLineStart() && isDeadAfterStart();
        begin();
    }

    private boolean isDeadAfterStart() {
        reached.clear();
        boolean[] alive = {!follow(program.start(), reached, -2)};
        for (int i = 0; i < reached.size(); i++) {
            alive[0] |= program.kind(reached.get(i)) == Program.BYTES;
        }
        return !alive[0];
    }

    private void begin() {
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
        if (matchesAll) {
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
            if (program.kind(step) == Program.BYTES && program.takes(step, value) && !follow(program.next(step), following, -1)) {
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
                    boolean follows = holds == -2 ? kind != Regex.EdgeKind.LINE_START : holds != -1 && (holds & 1 << kind.ordinal()) != 0;
                    if (follows) {
                        stack[depth++] = program.next(step);
                    }
                }
                default -> { }
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
