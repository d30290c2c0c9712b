package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.api.Replacement.Left;
import dev.oddbeacon.git.PatchWriter;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What becomes of files that match. */
record Outcome(
        List<Changed> files,
        List<Left> left,
        Optional<Replacement.Outside> outside,
        Optional<Replacement.Symbol> symbol) {

    /**
     * A file that changes.
     *
     * @param newPath empty if it keeps its own
     * @param edit empty if it is only renamed
     */
    record Changed(At at, String path, Optional<String> newPath, Optional<FileEdit> edit) {
        Replacement.File shown() {
            return new Replacement.File(
                    at.repository(),
                    at.branch(),
                    at.commit(),
                    path,
                    newPath.orElse(null),
                    edit.map(FileEdit::changes).orElse(List.of()));
        }

        void writeTo(PatchWriter patch) {
            Optional<FileEdit> content = edit.filter(FileEdit::isChange);
            if (newPath.isEmpty()) {
                content.ifPresent(one -> patch.add(path, one.before(), one.after()));
            } else if (content.isEmpty()) {
                patch.rename(path, newPath.get());
            } else {
                patch.rename(
                        path,
                        newPath.get(),
                        content.get().before(),
                        content.get().after());
            }
        }

        boolean isChange() {
            return newPath.isPresent() || edit.filter(FileEdit::isChange).isPresent();
        }
    }

    Replacement.Preview preview(int mostFiles) {
        return new Replacement.Preview(
                files.stream()
                        .flatMap(file -> file.edit.stream())
                        .mapToInt(edit -> (int) edit.applied())
                        .sum(),
                files.stream().limit(mostFiles).map(Changed::shown).toList(),
                files.size(),
                (int) files.stream().filter(file -> file.newPath.isPresent()).count(),
                files.stream()
                        .filter(Changed::isChange)
                        .map(file -> file.at.repository())
                        .distinct()
                        .toList(),
                left,
                outside.orElse(null),
                symbol.orElse(null));
    }

    /** A patch for each branch in which something changes. */
    Map<At, PatchWriter> patches() {
        Map<At, PatchWriter> writers = new LinkedHashMap<>();
        files.stream()
                .filter(Changed::isChange)
                .forEach(file -> file.writeTo(writers.computeIfAbsent(file.at, _ -> new PatchWriter())));
        return writers;
    }
}
