package dev.oddbeacon.core.files;

import dev.oddbeacon.core.search.FacetCounts;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Stop;
import dev.oddbeacon.core.snapshot.NamedFile;
import dev.oddbeacon.core.snapshot.View;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * What a search for files found in some repositories, or in all.
 *
 * @param loose paths that only have the letters, with others between; none unless few are close
 */
public record FilesFound(Told close, Told loose) {
    private static final Comparator<Share> MOST_FILES =
            Comparator.comparingInt(Share::files).reversed().thenComparing(Share::value);

    /**
     * Files of one kind.
     *
     * @param exact whether there are no others
     * @param stopped why not all paths were looked at
     * @param repository all of them; {@link Share#files} is how many files
     * @param type all of them, as traits are
     * @param first those that may stand on the page
     */
    public record Told(
            int files,
            boolean exact,
            Optional<Stop> stopped,
            List<Share> repository,
            List<Share> type,
            List<Share> trait,
            List<At> first) {
        static final Told NONE = new Told(0, true, Optional.empty(), List.of(), List.of(), List.of(), List.of());

        FileSearch.Facets facets(FileSearch.Kind kind) {
            boolean ofFiles = kind == FileSearch.Kind.FILE;
            return new FileSearch.Facets(
                    inOrder(repository), ofFiles ? inOrder(type) : List.of(), ofFiles ? inOrder(trait) : List.of());
        }

        private static List<Share> inOrder(List<Share> shares) {
            return shares.stream().sorted(MOST_FILES).toList();
        }
    }

    /**
     * A file, or a folder by its first file.
     *
     * @param points for how well it fits
     * @param length of what was found of the path, in bytes
     */
    public record At(NamedFile file, int points, int length) {}

    /** Several together: of parts that have no repository in common, or close and loose ones. */
    static Told merged(List<Told> parts) {
        return new Told(
                parts.stream().mapToInt(Told::files).sum(),
                parts.stream().allMatch(Told::exact),
                parts.stream().flatMap(part -> part.stopped.stream()).findFirst(),
                FacetCounts.added(parts, Told::repository),
                FacetCounts.added(parts, Told::type),
                FacetCounts.added(parts, Told::trait),
                parts.stream().flatMap(part -> part.first.stream()).toList());
    }

    boolean isIn(View view) {
        return Stream.concat(close.first.stream(), loose.first.stream())
                .allMatch(at -> at.file.place(view).isPresent());
    }
}
