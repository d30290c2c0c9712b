package dev.oddbeacon.wire;

import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.core.search.Excerpt.Span;
import dev.oddbeacon.core.search.Facets.Share;
import java.util.List;

/** Parts of the wire format that the answers of several subjects share. */
public final class Parts {
    private Parts() {}

    public static List<LinesAnswer.Facet> facet(List<Share> shares) {
        return shares.stream()
                .map(share -> new LinesAnswer.Facet(share.value(), share.files(), share.hits()))
                .toList();
    }

    public static List<LinesAnswer.Match> matches(List<Span> spans) {
        return spans.stream()
                .map(span -> new LinesAnswer.Match(span.start(), span.end()))
                .toList();
    }
}
