package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.shape.RegionSource;
import dev.oddbeacon.core.shape.ShapeFinder;
import dev.oddbeacon.core.shape.ShapesByLanguage;
import dev.oddbeacon.core.source.Region;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.util.List;
import java.util.function.BooleanSupplier;

/** Code of a certain shape, in files whose language has a profile. */
final class ShapeMatcher implements TextMatcher {
    private final ShapesByLanguage shapes;
    private final Plan plan;

    ShapeMatcher(ShapesByLanguage shapes) {
        this.shapes = shapes;
        this.plan = Plan.anyOf(shapes.required().stream()
                .map(texts -> Plan.allOf(texts.stream().map(Plan::holds).toList()))
                .toList());
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
                if (parts.language().isEmpty()) {
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
