package dev.oddbeacon.core.snapshot;

import dev.oddbeacon.core.history.HistoryReader;
import dev.oddbeacon.core.history.Past;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/** The pasts of all repositories. Immutable; what is as before is shared with the view before. */
final class Pasts {
    static final Pasts NONE = new Pasts(new String[0], new PastFiles[0]);

    private final String[] repositories; // ascending
    private final PastFiles[] pasts;

    /** The files that tell the past of a repository, and what is made of them. */
    private record PastFiles(List<SharedFile<HistoryReader>> files, Past past) {
        boolean areOf(List<Path> paths) {
            if (paths.size() != files.size()) {
                return false;
            }
            for (int i = 0; i < paths.size(); i++) {
                if (!files.get(i).path().equals(paths.get(i))) {
                    return false;
                }
            }
            return true;
        }
    }

    private Pasts(String[] repositories, PastFiles[] pasts) {
        this.repositories = repositories;
        this.pasts = pasts;
    }

    /**
     * The pasts after these.
     *
     * @param histories the files of each repository
     * @param retained takes the files, each held once more
     * @throws IOException if a file cannot be opened
     */
    Pasts next(Map<String, List<Path>> histories, Collection<SharedFile<?>> retained) throws IOException {
        String[] names = histories.keySet().toArray(new String[0]);
        Arrays.sort(names); // of what is in order already, which it mostly is
        PastFiles[] next = new PastFiles[names.length];
        for (int i = 0; i < names.length; i++) {
            List<Path> paths = histories.get(names[i]);
            Optional<PastFiles> before = find(names[i]);
            next[i] = before.isPresent() && before.get().areOf(paths)
                    ? held(before.get(), retained)
                    : opened(paths, before.map(PastFiles::files).orElse(List.of()), retained);
        }
        return new Pasts(Arrays.equals(names, repositories) ? repositories : names, next);
    }

    private static PastFiles held(PastFiles past, Collection<SharedFile<?>> retained) {
        past.files.forEach(file -> retained.add(file.retain()));
        return past;
    }

    private static PastFiles opened(
            List<Path> paths, List<SharedFile<HistoryReader>> open, Collection<SharedFile<?>> retained)
            throws IOException {
        List<SharedFile<HistoryReader>> files = new ArrayList<>();
        for (Path path : paths) {
            Optional<SharedFile<HistoryReader>> known =
                    open.stream().filter(file -> file.path().equals(path)).findFirst();
            SharedFile<HistoryReader> file =
                    known.isPresent() ? known.get().retain() : new SharedFile<>(path, new HistoryReader(path));
            retained.add(file);
            files.add(file);
        }
        return new PastFiles(
                List.copyOf(files),
                new Past(files.stream().map(SharedFile::reader).toList()));
    }

    private Optional<PastFiles> find(String repository) {
        int at = Arrays.binarySearch(repositories, repository);
        return at < 0 ? Optional.empty() : Optional.of(pasts[at]);
    }

    /** The past of a repository. */
    Past of(String repository) {
        return find(repository).map(PastFiles::past).orElse(Past.NONE);
    }

    /** Stands for the past of a repository: its files have the same names wherever they were brought to. */
    int fingerprint(String repository) {
        return find(repository).stream()
                .flatMap(past -> past.files.stream())
                .map(file -> file.path().getFileName().toString())
                .toList()
                .hashCode();
    }

    void forEachFile(Consumer<SharedFile<HistoryReader>> consumer) {
        for (PastFiles past : pasts) {
            past.files.forEach(consumer);
        }
    }
}
