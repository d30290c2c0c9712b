package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.Lines;
import java.lang.foreign.MemorySegment;
import java.util.List;

/** A finder that works out the matches of a stretch of text at once, and then tells them one by one. */
abstract class SpanListFinder implements TextMatcher.Finder {
    private final SpanList found = new SpanList();
    private MemorySegment text = MemorySegment.NULL;
    private long high;
    private int index;
    private final List<TextMatcher.Finder> inner;

    /** @param inner the finders whose matches it works with */
    SpanListFinder(List<TextMatcher.Finder> inner) {
        this.inner = inner;
    }

    @Override
    public void enter(FileParts parts) {
        inner.forEach(finder -> finder.enter(parts));
    }

    /** Adds all matches, ordered by where they start. */
    abstract void find(MemorySegment text, long low, long high, long from, long to, SpanList into);

    @Override
    public void begin(MemorySegment text, long low, long high, long from, long to) {
        this.text = text;
        this.high = high;
        found.clear();
        find(text, low, high, from, to, found);
        index = -1;
    }

    @Override
    public boolean next() {
        return ++index < found.size();
    }

    @Override
    public void skipLine() {
        long end = Lines.end(text, end(), high);
        while (index + 1 < found.size() && found.start(index + 1) <= end) {
            index++;
        }
    }

    @Override
    public long start() {
        return found.start(index);
    }

    @Override
    public long end() {
        return found.end(index);
    }
}
