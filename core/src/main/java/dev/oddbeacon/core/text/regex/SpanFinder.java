package dev.oddbeacon.core.text.regex;

import dev.oddbeacon.core.text.ScanStoppedException;
import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.function.BooleanSupplier;

/**
 * Finds where on a line a {@link Program} matches: the leftmost match and, of several there, the preferred one. All
 * possibilities are followed at once, byte by byte, in the order of preference (Pike's way; Russ Cox, "Regular
 * Expression Matching: the Virtual Machine Approach", 2009), so that the cost is at most steps times bytes. For one
 * thread.
 */
final class SpanFinder {
    private static final int WORK_BETWEEN_QUESTIONS = 1 << 16;

    private final Program program;
    private final BooleanSupplier stop;
    private final int[] stack;
    private StepSet current;
    private StepSet following;
    private long[] startOf; // of the threads in current, by step
    private long[] startOfFollowing;
    private MemorySegment text = MemorySegment.NULL;
    private long low;
    private long high;
    private long edgesAt; // the place that edges were last looked at for, and the kinds that hold there
    private int edges;
    private int work;
    private long start;
    private long end;

    SpanFinder(Program program, BooleanSupplier stop) {
        this.program = program;
        this.stop = stop;
        this.stack = new int[2 * program.steps() + 2];
        this.current = new StepSet(program.steps());
        this.following = new StepSet(program.steps());
        this.startOf = new long[program.steps()];
        this.startOfFollowing = new long[program.steps()];
    }

    /**
     * @param low the start of a line
     * @param high its end, without the line feed
     * @param from where a match may start at the earliest, on the boundary of a code point
     * @throws ScanStoppedException if it was told to stop
     */
    boolean find(MemorySegment line, long low, long high, long from) {
        this.text = line;
        this.low = low;
        this.high = high;
        this.edgesAt = -1;
        current.clear();
        boolean found = false;
        for (long at = from; at <= high; at++) {
            if (!found && (at == high || (text.get(ValueLayout.JAVA_BYTE, at) & 0xC0) != 0x80)) {
                follow(program.start(), at, at, current, startOf);
            }
            if (found && current.size() == 0) {
                break;
            }
            following.clear();
            int value = at < high ? text.get(ValueLayout.JAVA_BYTE, at) & 0xFF : -1;
            for (int i = 0; i < current.size(); i++) {
                int step = current.get(i);
                byte kind = program.kind(step);
                if (kind == Program.MATCH) {
                    found = true;
                    start = startOf[step];
                    end = at;
                    break; // what is left is less preferred
                }
                if (kind == Program.BYTES && value >= 0 && program.takes(step, value)) {
                    follow(program.next(step), at + 1, startOf[step], following, startOfFollowing);
                }
            }
            swap();
        }
        return found;
    }

    long start() {
        return start;
    }

    long end() {
        return end;
    }

    private void swap() {
        work += current.size() + 1;
        if (work > WORK_BETWEEN_QUESTIONS) {
            work = 0;
            if (stop.getAsBoolean()) {
                throw new ScanStoppedException();
            }
        }
        StepSet set = current;
        current = following;
        following = set;
        long[] starts = startOf;
        startOf = startOfFollowing;
        startOfFollowing = starts;
    }

    private void follow(int first, long at, long startOfMatch, StepSet set, long[] starts) {
        int depth = 0;
        stack[depth++] = first;
        while (depth > 0) {
            int step = stack[--depth];
            if (!set.add(step)) {
                continue;
            }
            starts[step] = startOfMatch;
            switch (program.kind(step)) {
                case Program.SPLIT -> {
                    stack[depth++] = program.other(step);
                    stack[depth++] = program.next(step);
                }
                case Program.EDGE -> {
                    if (holds(program.edge(step), at)) {
                        stack[depth++] = program.next(step);
                    }
                }
                default -> {}
            }
        }
    }

    private boolean holds(Regex.EdgeKind kind, long at) {
        if (edgesAt != at) {
            edgesAt = at;
            edges = 0;
            for (Regex.EdgeKind each : Regex.EdgeKind.values()) {
                edges |= isEdge(each, at) ? 1 << each.ordinal() : 0;
            }
        }
        return (edges & 1 << kind.ordinal()) != 0;
    }

    private boolean isEdge(Regex.EdgeKind kind, long at) {
        return switch (kind) {
            case ANYWHERE -> true;
            case LINE_START -> at == low;
            case LINE_END -> at == high;
            case WORD_EDGE -> isWordByte(at - 1) != isWordByte(at);
            case NO_WORD_EDGE -> isWordByte(at - 1) == isWordByte(at);
            case NOT_IN_WORD ->
                at == low
                        || at == high
                        || !Words.isWordPart(Utf8.before(text, at, low))
                        || !Words.isWordPart(Utf8.at(text, at, high));
        };
    }

    private boolean isWordByte(long at) {
        return at >= low && at < high && Program.isWordByte(text.get(ValueLayout.JAVA_BYTE, at) & 0xFF);
    }
}
