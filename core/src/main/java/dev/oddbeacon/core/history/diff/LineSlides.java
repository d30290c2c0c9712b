package dev.oddbeacon.core.history.diff;

/**
 * A run of changed lines may stand elsewhere just as well if the line before it is its last, or the line after it its
 * first: it slides. Runs that meet become one. Of the places it goes to the last, or to the one that lines up with a
 * change of the other text, or else to where what it begins with is the least indented.
 */
final class LineSlides {
    private LineSlides() {}

    /**
     * Moves the runs of one text.
     *
     * @param start the line that the first mark is about
     * @param changed marks of the text
     * @param other marks of the other text; unmarked lines of both belong together, in their order
     */
    static void settle(TextLines text, int start, boolean[] changed, boolean[] other) {
        int at = 0;
        int opposite = 0; // in the other text, what belongs to at
        while (true) {
            while (opposite < other.length && other[opposite]) {
                opposite++;
            }
            while (at < changed.length && !changed[at]) {
                at++;
                opposite++;
                while (opposite < other.length && other[opposite]) {
                    opposite++;
                }
            }
            if (at == changed.length) {
                return;
            }
            int end = at;
            while (end < changed.length && changed[end]) {
                end++;
            }
            int[] run = {at, end};
            opposite = slide(text, start, changed, other, run, opposite);
            at = run[1];
        }
    }

    /** @return what belongs to the end of the run, in the other text */
    private static int slide(TextLines text, int start, boolean[] changed, boolean[] other, int[] run, int opposite) {
        int from = run[0];
        int to = run[1];
        int beside = opposite; // the unmarked line of the other text that belongs to the one after the run
        int length;
        int lined = -1;
        do {
            length = to - from;
            while (from > 0 && same(text, start + from - 1, start + to - 1)) {
                changed[--from] = true;
                changed[--to] = false;
                beside = previous(other, beside);
                while (from > 0 && changed[from - 1]) {
                    from--;
                }
            }
            lined = isBehindChange(other, beside) ? to : -1;
            while (to < changed.length && same(text, start + from, start + to)) {
                changed[from++] = false;
                changed[to++] = true;
                beside = next(other, beside);
                while (to < changed.length && changed[to]) {
                    to++;
                }
                lined = isBehindChange(other, beside) ? to : lined;
            }
        } while (length != to - from);
        int best = lined >= 0 ? lined : leastIndented(text, start, from, to);
        while (to > best && from > 0 && same(text, start + from - 1, start + to - 1)) {
            changed[--from] = true;
            changed[--to] = false;
            beside = previous(other, beside);
        }
        run[0] = from;
        run[1] = to;
        return beside;
    }

    private static boolean same(TextLines text, int a, int b) {
        return TextLines.Sameness.EXACT.same(text, a, text, b);
    }

    private static int previous(boolean[] other, int at) {
        int before = at - 1;
        while (before > 0 && before < other.length && other[before]) {
            before--;
        }
        return Math.max(0, before);
    }

    private static int next(boolean[] other, int at) {
        int after = at + 1;
        while (after < other.length && other[after]) {
            after++;
        }
        return after;
    }

    /** Whether the other text has a change directly before a line. */
    private static boolean isBehindChange(boolean[] other, int at) {
        return at > 0 && at <= other.length && other[at - 1];
    }

    /** The best end of a run that can slide up. */
    private static int leastIndented(TextLines text, int start, int from, int to) {
        int best = to;
        int least = weight(text, start, from, to);
        for (int up = 1; from - up >= 0 && same(text, start + from - up, start + to - up); up++) {
            int weight = weight(text, start, from - up, to - up);
            if (weight < least) {
                least = weight;
                best = to - up;
            }
        }
        return best;
    }

    /**
     * How much what comes after the run is indented: a run that ends where a block ends reads well. Blank lines go
     * after it rather than before.
     */
    private static int weight(TextLines text, int start, int from, int to) {
        int after = start + to < text.count() ? text.indent(start + to) : 0;
        int first = text.indent(start + from);
        return 2 * (first < 0 ? 200 : first) + (after < 0 ? 0 : 1 + after);
    }
}
