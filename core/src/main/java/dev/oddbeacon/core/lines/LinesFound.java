package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.snapshot.NamedFile;
import java.util.List;

/**
 * What a search for lines found in some repositories.
 *
 * @param first the files that may stand on the page, and the one that the next page starts with
 */
public record LinesFound(LineCounts counts, List<NamedFile> first) {}
