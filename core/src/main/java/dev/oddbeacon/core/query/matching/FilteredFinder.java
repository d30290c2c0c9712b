package dev.oddbeacon.core.query.matching;

import java.lang.foreign.MemorySegment;

/** Passes over some of the matches of another finder, by where in the file they stand. */
abstract class FilteredFinder implements TextMatcher.Finder {
    private final TextMatcher.Finder inner;
    private FileParts parts = FileParts.UNKNOWN;

    FilteredFinder(TextMatcher.Finder inner) {
        this.inner = inner;
    }

    /** Whether a match counts. */
    abstract boolean takes(FileParts parts, long start, long end);

    @Override
    public void enter(FileParts file) {
        parts = file;
        inner.enter(file);
    }

    @Override
    public void begin(MemorySegment text, long low, long high, long from, long to) {
        inner.begin(text, low, high, from, to);
    }

    @Override
    public boolean next() {
        while (inner.next()) {
            if (takes(parts, inner.start(), inner.end())) {
                return true;
            }
        }
        return false;
    }

    @Override
    public void skipLine() {
        inner.skipLine();
    }

    @Override
    public long start() {
        return inner.start();
    }

    @Override
    public long end() {
        return inner.end();
    }
}
