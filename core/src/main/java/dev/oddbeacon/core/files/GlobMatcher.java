package dev.oddbeacon.core.files;

import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.core.search.Excerpt.Span;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** A glob for the whole path, or for the name if it has no slash. */
final class GlobMatcher implements PathMatcher {
    private final Glob glob;
    private final boolean ofPath;

    /** @throws dev.oddbeacon.core.query.InvalidQueryException if it is not valid, with the place */
    GlobMatcher(String text) {
        ofPath = text.indexOf('/') >= 0;
        glob = Glob.ofGit(text.startsWith("/") ? text.substring(1) : text);
    }

    @Override
    public int points(Path path) {
        int start = ofPath ? 0 : path.name;
        return glob.matches(new String(path.bytes, path.start + start, path.length - start, StandardCharsets.UTF_8))
                ? -path.length / 8
                : NO_MATCH;
    }

    @Override
    public List<Span> spans(Path path) {
        return List.of(new Span(ofPath ? 0 : path.name, path.length));
    }
}
