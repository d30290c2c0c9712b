package dev.oddbeacon.client.browse;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.LinesAnswer;
import java.util.List;

/**
 * A line of the list: a hit, or a file.
 *
 * @param line from 1; 0 for a file
 * @param column of the first match, from 1
 * @param text the hit's line, or the file's path
 * @param matches in the text that is held, in UTF-16 units
 */
record BrowseItem(
        String repository,
        String branch,
        String path,
        int line,
        int column,
        String text,
        List<LinesAnswer.Match> matches) {
    /** The place of the item, whatever kind of search found it. */
    record Place(String repository, String branch, String path, int line) {}

    Place place() {
        return new Place(repository, branch, path, line);
    }

    /** A file, and a line of it if it was found by its lines. */
    static List<BrowseItem> of(LinesAnswer.FileHits file) {
        if (file.excerpts().isEmpty()) {
            return List.of(new BrowseItem(file.repository(), file.branch(), file.path(), 0, 1, file.path(), List.of()));
        }
        return file.excerpts().stream()
                .flatMap(excerpt -> excerpt.lines().stream())
                .filter(line -> !line.matches().isEmpty())
                .map(line -> new BrowseItem(
                        file.repository(),
                        file.branch(),
                        file.path(),
                        line.number(),
                        line.matches().getFirst().start() + 1,
                        line.text(),
                        line.matches().stream()
                                .map(match -> new LinesAnswer.Match(
                                        match.start() - line.textStart(), match.end() - line.textStart()))
                                .toList()))
                .toList();
    }

    static BrowseItem of(FilesAnswer.File file) {
        return new BrowseItem(file.repository(), file.branch(), file.path(), 0, 1, file.path(), file.matches());
    }
}
