package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/** Whole words of similar spelling, ignoring case. */
final class LikeMatcher implements TextMatcher {
    private static final int[] FOLDED_ASCII = IntStream.range(0, 128)
            .map(c -> Words.isWordPart(c) ? CaseFolding.fold(c) : 0)
            .toArray();

    private final int[] wanted;
    private final int edits;

    LikeMatcher(String word) {
        this.wanted = CaseFolding.fold(word);
        this.edits = Plan.Similar.editsFor(wanted.length);
    }

    @Override
    public Plan plan() {
        return new Plan.Similar(new String(wanted, 0, wanted.length), edits);
    }

    @Override
    public boolean staysOnLine() {
        return true;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        return new LikeFinder();
    }

    private final class LikeFinder implements Finder {
        private final int[] word = new int[wanted.length + edits];
        private MemorySegment text = MemorySegment.NULL;
        private long to;
        private long position;
        private long start;
        private long end;

        @Override
        public void begin(MemorySegment text, long low, long high, long from, long to) {
            this.text = text;
            this.to = to;
            this.position = from;
        }

        @Override
        public boolean next() {
            while (position < to) {
                long from = position;
                int letters = 0;
                while (position < to) {
                    int lead = text.get(ValueLayout.JAVA_BYTE, position);
                    if (lead >= 0) { // most text is ASCII
                        int folded = FOLDED_ASCII[lead];
                        if (folded == 0) {
                            break;
                        }
                        if (letters < word.length) {
                            word[letters] = folded;
                        }
                        letters++;
                        position++;
                        continue;
                    }
                    int codePoint = Utf8.at(text, position, to);
                    if (!Words.isWordPart(codePoint)) {
                        break;
                    }
                    if (letters < word.length) {
                        word[letters] = CaseFolding.fold(codePoint);
                    }
                    letters++;
                    position += Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, position));
                }
                if (position == from) {
                    position += Utf8.lengthOf(text.get(ValueLayout.JAVA_BYTE, position));
                } else if (Math.abs(letters - wanted.length) <= edits
                        && EditDistance.atMost(wanted, word, letters, edits)) {
                    start = from;
                    end = position;
                    return true;
                }
            }
            return false;
        }

        @Override
        public void skipLine() {
            position = Lines.end(text, end, to) + 1;
        }

        @Override
        public long start() {
            return start;
        }

        @Override
        public long end() {
            return end;
        }
    }
}
