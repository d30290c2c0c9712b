package dev.oddbeacon.core.query.matching;

import java.lang.foreign.MemorySegment;
import java.util.List;
import java.util.function.BooleanSupplier;

/** Several texts, any of which counts: {@code a or b} inside of {@code near} and {@code line}. */
record AnyOfMatcher(List<TextMatcher> parts) implements TextMatcher {
    @Override
    public Plan plan() {
        return Plan.anyOf(parts.stream().map(TextMatcher::plan).toList());
    }

    @Override
    public boolean staysOnLine() {
        return parts.stream().allMatch(TextMatcher::staysOnLine);
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        List<Finder> finders = parts.stream().map(part -> part.finder(stop)).toList();
        return new SpanListFinder(finders) {
            @Override
            void find(MemorySegment text, long low, long high, long from, long to, SpanList into) {
                for (Finder finder : finders) {
                    finder.begin(text, low, high, from, to);
                    into.addAll(finder);
                }
                into.sort();
            }
        };
    }
}
