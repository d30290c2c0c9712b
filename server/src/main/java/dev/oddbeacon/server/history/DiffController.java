package dev.oddbeacon.server.history;

import dev.oddbeacon.api.DiffAnswer;
import dev.oddbeacon.core.history.diff.FileDiff;
import dev.oddbeacon.core.history.diff.Patch;
import dev.oddbeacon.core.history.diff.PathChange;
import dev.oddbeacon.core.history.diff.TextLines;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Revisions;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.load.Downloads;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/repositories/{name}/diff}: two revisions compared, as JSON or as a patch. */
@RestController
class DiffController {
    private static final int MOST_FILES = 300;
    private static final int MOST_LINES = 50_000;
    private static final int MOST_CONTEXT = 1_000_000;
    private static final String PATCH = "text/x-diff";

    private final Contexts contexts;
    private final Downloads downloads;
    private final long largestFile;

    DiffController(Contexts contexts, Downloads downloads, Settings settings) {
        this.contexts = contexts;
        this.downloads = downloads;
        this.largestFile = settings.largestFile().toBytes();
    }

    @Operation(
            summary = "What differs between two revisions",
            description =
                    "Without from: what a commit changed, compared with its first parent. With Accept: text/x-diff, as a unified diff that git apply takes.")
    @GetMapping("/api/v1/repositories/{name}/diff")
    Object diff(
            Caller caller,
            @PathVariable String name,
            @RequestParam(defaultValue = "") String from,
            @RequestParam(defaultValue = "") String to,
            @RequestParam(required = false) List<String> path,
            @RequestParam(name = "context", required = false) Integer contextLines,
            @RequestParam(defaultValue = "false") boolean ignoreSpace,
            @RequestHeader(name = HttpHeaders.ACCEPT, defaultValue = "") String accept,
            HttpServletResponse response)
            throws IOException {
        int around = Parameters.range("context", contextLines, 3, 0, MOST_CONTEXT);
        boolean asPatch = accept.contains(PATCH);
        TextLines.Sameness sameness =
                ignoreSpace && !asPatch ? TextLines.Sameness.WITHOUT_SPACE : TextLines.Sameness.EXACT;
        try (CallerContext context = contexts.open(caller);
                MirrorReader mirror = context.mirror(context.repository(name));
                MirrorReader.Objects objects = mirror.objects()) {
            Repository repository = context.repository(name);
            ObjectId after = Revisions.commit(context, repository, mirror, to);
            Optional<ObjectId> before = from.isEmpty()
                    ? mirror.commit(after).parents().stream().findFirst()
                    : Optional.of(Revisions.commit(context, repository, mirror, from));
            List<PathChange> changes = mirror.changes(before, after);
            List<String> paths = path == null
                    ? List.of()
                    : path.stream().filter(one -> !one.isEmpty()).toList();
            List<PathChange> wanted = paths.isEmpty()
                    ? changes
                    : changes.stream()
                            .filter(change -> paths.stream().anyMatch(one -> isAt(change, one)))
                            .toList();
            if (wanted.isEmpty() && !paths.isEmpty()) {
                for (String one : paths) {
                    boolean isThere = objects.at(after, one).isPresent()
                            || before.isPresent()
                                    && objects.at(before.get(), one).isPresent();
                    if (!isThere) {
                        throw new NotFoundException("There is no " + one + " at either revision of " + name
                                + ". Paths start at the repository's root.");
                    }
                }
            }
            if (asPatch) {
                response.setContentType(PATCH + ";charset=UTF-8");
                return downloads.body(writer -> writePatch(caller, name, wanted, around, writer));
            }
            List<FileDiff> files = new ArrayList<>();
            int lines = 0;
            for (PathChange change : wanted) {
                context.search().budget().demand();
                if (files.size() == MOST_FILES || lines > MOST_LINES) {
                    break;
                }
                FileDiff file = compare(change, objects, sameness, around);
                lines += file.hunks().stream()
                        .mapToInt(hunk -> hunk.lines().size())
                        .sum();
                files.add(file);
            }
            return new DiffAnswer(
                    name,
                    before.map(ObjectId::toString).orElse(""),
                    after.toString(),
                    wanted.size(),
                    files.stream().map(DiffController::file).toList());
        }
    }

    /** One file after the other, each of them written before the next is compared. */
    private void writePatch(Caller caller, String name, List<PathChange> changes, int around, Downloads.Writer writer)
            throws IOException {
        for (PathChange change : changes) {
            writer.write(new Downloads.Piece(2 * largestFile, () -> {
                try (CallerContext context = contexts.open(caller);
                        MirrorReader mirror = context.mirror(context.repository(name));
                        MirrorReader.Objects objects = mirror.objects()) {
                    return Patch.of(List.of(compare(change, objects, TextLines.Sameness.EXACT, around)));
                }
            }));
        }
    }

    private static boolean isAt(PathChange change, String path) {
        String below = path.endsWith("/") ? path : path + "/";
        return change.path().equals(path)
                || change.from().equals(path)
                || change.path().startsWith(below)
                || change.from().startsWith(below);
    }

    private static FileDiff compare(
            PathChange change, MirrorReader.Objects objects, TextLines.Sameness sameness, int context) {
        if (!change.isFile()) {
            return new FileDiff(change, true, List.of());
        }
        try {
            return FileDiff.of(
                    change, bytes(change.before(), objects), bytes(change.after(), objects), sameness, context);
        } catch (IOException e) {
            return new FileDiff(change, true, List.of()); // missing from the repository
        }
    }

    private static byte[] bytes(ObjectId blob, MirrorReader.Objects objects) throws IOException {
        return blob.equals(PathChange.NOTHING) ? new byte[0] : objects.blob(blob);
    }

    private static DiffAnswer.File file(FileDiff file) {
        PathChange change = file.change();
        long added = file.hunks().stream()
                .flatMap(hunk -> hunk.lines().stream())
                .filter(line -> line.kind() == '+')
                .count();
        long removed = file.hunks().stream()
                .flatMap(hunk -> hunk.lines().stream())
                .filter(line -> line.kind() == '-')
                .count();
        return new DiffAnswer.File(
                change.path(),
                change.kind() == PathChange.Kind.RENAMED ? change.from() : null,
                change.kind().label(),
                file.binary(),
                (int) added,
                (int) removed,
                file.hunks().stream()
                        .map(hunk -> new DiffAnswer.Hunk(
                                hunk.oldStart(),
                                hunk.oldLines(),
                                hunk.newStart(),
                                hunk.newLines(),
                                hunk.lines().stream()
                                        .map(line -> new DiffAnswer.Line(String.valueOf(line.kind()), line.text()))
                                        .toList()))
                        .toList());
    }
}
