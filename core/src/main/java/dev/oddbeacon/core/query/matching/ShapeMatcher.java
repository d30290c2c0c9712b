package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.shape.RegionSource;
import dev.oddbeacon.core.shape.ShapeFinder;
import dev.oddbeacon.core.shape.ShapesByLanguage;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.text.LiteralScanner;
import dev.oddbeacon.core.text.Utf8;
import dev.oddbeacon.core.text.Words;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;

/** Code of a certain shape, in files whose language has a profile. */
final class ShapeMatcher implements TextMatcher {
    private final ShapesByLanguage shapes;
    private final Plan plan;
    private final Optional<LiteralScanner> word;

    ShapeMatcher(ShapesByLanguage shapes) {
        this.shapes = shapes;
        List<List<String>> required = shapes.required();
        this.plan = Plan.anyOf(required.stream()
                .map(texts -> Plan.allOf(texts.stream().map(Plan::holds).toList()))
                .toList());
        this.word = required.size() == 1
                ? required.getFirst().stream()
                        .filter(text -> text.codePoints().allMatch(Words::isWordPart))
                        .findFirst()
                        .map(text -> LiteralScanner.of(text, true))
                : Optional.empty();
    }

    /** Whether the longest word that must stand does, in any case: telling tokens costs more than looking. */
    private boolean mayStand(MemorySegment text, long low, long high) {
        if (word.isEmpty()) {
            return true;
        }
        LiteralScanner scanner = word.get();
        for (long at = scanner.find(text, low, high);
                at >= 0;
                at = scanner.find(text, scanner.end(text, at, high), high)) {
            if (Words.isWhole(text, afterNumber(text, low, at), at, scanner.end(text, at, high), high)) {
                return true;
            }
        }
        return false;
    }

    /** Where text ends that may be a token before this place: a number does not reach into what it is written against. */
    private static long afterNumber(MemorySegment text, long low, long at) {
        long start = at;
        while (start > low && Words.isWordPart(Utf8.before(text, start, low))) {
            start = Utf8.startBefore(text, start, low);
        }
        byte first = start < at ? text.get(ValueLayout.JAVA_BYTE, start) : 0;
        return first >= '0' && first <= '9' ? at : low;
    }

    @Override
    public Plan plan() {
        return plan;
    }

    @Override
    public boolean staysOnLine() {
        return false;
    }

    @Override
    public Finder finder(BooleanSupplier stop) {
        ShapeFinder inText = new ShapeFinder(shapes, stop);
        return new SpanListFinder(List.of()) {
            private FileParts parts = FileParts.UNKNOWN;

            @Override
            public void enter(FileParts file) {
                parts = file;
            }

            @Override
            void find(MemorySegment text, long low, long high, long from, long to, SpanList into) {
                if (parts.language().isEmpty() || !mayStand(text, low, high)) {
                    return;
                }
                byte[] bytes = text.asSlice(low, high - low).toArray(ValueLayout.JAVA_BYTE);
                inText.find(bytes, parts.language().get(), new RegionSource() {
                            @Override
                            public Region region(int offset) {
                                return parts.region(low + offset);
                            }

                            @Override
                            public int end() {
                                return (int) Math.min(bytes.length, parts.regionEnd() - low);
                            }
                        })
                        .forEach(match -> into.add(low + match.start(), low + match.end()));
            }
        };
    }
}
