package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.text.Filled;
import java.lang.foreign.MemorySegment;
import java.util.List;
import java.util.function.BooleanSupplier;

/** What a sentence with values filled in was made from; see {@link Filled}. */
final class FilledMatcher implements TextMatcher {
    private final List<String> needed;
    private final Filled filled;

    FilledMatcher(String sentence, CaseMode caseMode) {
        this.needed = Filled.needed(sentence);
        this.filled = new Filled(sentence, caseMode.ignores(sentence));
    }

    @Override
    public Plan plan() {
        return Plan.anyOf(needed.stream().map(Plan::holds).toList());
    }

    @Override
    public boolean staysOnLine() {
        return true;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        return new LinesFinder(stop) {
            @Override
            boolean isWorthReading(MemorySegment text, long from, long to) {
                return to > from;
            }

            @Override
            void findOnLine(String line, Taker into) {
                filled.in(line).ifPresent(match -> into.take(match.start(), match.end()));
            }
        };
    }
}
