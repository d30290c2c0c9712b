package dev.oddbeacon.server.files;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.api.FoundInFile;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.SkippedFiles;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.lines.FindInText;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.SnapshotFile;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.text.TextDecoder;
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
import dev.oddbeacon.server.web.TooLargeException;
import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/**
 * {@code /api/v1/repositories/{name}/...}: what is in a repository. Files are read from its mirror, at any revision.
 */
@RestController
@RequestMapping("/api/v1/repositories/{name}")
class FilesController {
    /** Types that a browser may show of a repository's files; all else is downloaded. */
    private static final Map<String, String> IMAGES = Map.of(
            "png",
            "image/png",
            "jpg",
            "image/jpeg",
            "jpeg",
            "image/jpeg",
            "gif",
            "image/gif",
            "webp",
            "image/webp",
            "ico",
            "image/x-icon",
            "svg",
            "image/svg+xml");

    private static final int MOST_MATCHES = 10_000;

    private final Contexts contexts;
    private final Downloads downloads;
    private final Submodules submodules;
    private final long largestFile;

    FilesController(Contexts contexts, Downloads downloads, Submodules submodules, Settings settings) {
        this.submodules = submodules;
        this.contexts = contexts;
        this.downloads = downloads;
        this.largestFile = settings.largestFile().toBytes();
    }

    /** A file at a commit. */
    private record Found(
            String branch, String commit, SourceTree.Entry entry, Optional<String> type, List<String> traits) {}

    @GetMapping("/file")
    FileContent file(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev)
            throws IOException {
        try (CallerContext context = contexts.open(caller);
                MirrorReader reader = context.mirror(context.repository(name))) {
            Found found = find(context, context.repository(name), reader, rev, path);
            SourceTree.Entry entry = found.entry;
            Standing standing = switch (entry.kind()) {
                case SUBMODULE -> Standing.SUBMODULE;
                case LINK -> Standing.LINK;
                case FILE -> entry.bytes() > largestFile ? Standing.TOO_LARGE : Standing.SEARCHED;
            };
            Optional<TextDecoder.Text> text =
                    standing == Standing.SEARCHED ? TextDecoder.decode(reader.blob(entry.id())) : Optional.empty();
            if (standing == Standing.SEARCHED && text.isEmpty()) {
                standing = Standing.BINARY;
            }
            String content = text.map(decoded -> new String(decoded.utf8(), StandardCharsets.UTF_8))
                    .orElse(null);
            return new FileContent(
                    name,
                    found.branch,
                    found.commit,
                    entry.path(),
                    found.type.orElseGet(() -> type(entry, text)),
                    found.traits,
                    entry.bytes(),
                    lines(content),
                    text.map(decoded -> decoded.encoding().label()).orElse(null),
                    standing == Standing.SEARCHED ? null : standing.reason(),
                    entry.kind() == SourceTree.Kind.FILE && IMAGES.containsKey(ending(path)),
                    content,
                    entry.kind() == SourceTree.Kind.SUBMODULE
                            ? submodules
                                    .of(context, context.repository(name), reader, found.commit)
                                    .at(entry.path(), entry.id())
                            : null);
        }
    }

    @Operation(
            summary = "Every match of a text in a file",
            description =
                    "In the dialect of searches, computed by the same matcher. reading is plain (the default) or regex.")
    @GetMapping("/file/matches")
    FoundInFile matches(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev,
            @RequestParam String q,
            @RequestParam(defaultValue = "") String reading,
            @RequestParam(name = "case", defaultValue = "") String caseName,
            @RequestParam(defaultValue = "false") boolean word)
            throws IOException {
        TextQuery query = new TextQuery(
                q,
                Parameters.oneOf(Reading.values(), "reading", reading),
                Parameters.oneOf(CaseMode.values(), "case", caseName),
                word);
        try (CallerContext context = contexts.open(caller);
                MirrorReader reader = context.mirror(context.repository(name))) {
            Found found = find(context, context.repository(name), reader, rev, path);
            Optional<TextDecoder.Text> text = found.entry.kind() == SourceTree.Kind.FILE
                    ? TextDecoder.decode(reader.blob(found.entry.id()))
                    : Optional.empty();
            if (text.isEmpty()) {
                throw new NotFoundException(path + " has no text to look in.");
            }
            Budget budget = context.search().budget();
            List<FindInText.Match> matches = FindInText.of(query, text.get().utf8(), MOST_MATCHES + 1, budget::isOver);
            boolean more = matches.size() > MOST_MATCHES;
            return new FoundInFile(
                    name,
                    found.commit,
                    path,
                    matches.subList(0, Math.min(MOST_MATCHES, matches.size())).stream()
                            .map(match -> new LinesAnswer.Match(match.start(), match.end()))
                            .toList(),
                    more);
        }
    }

    private static String type(SourceTree.Entry entry, Optional<TextDecoder.Text> text) {
        return FileTypes.of(
                entry.path(),
                text.map(decoded -> Signs.of(decoded.utf8(), 1)).orElse(Signs.NONE),
                text.isPresent(),
                _ -> false);
    }

    private static int lines(String text) {
        if (text == null || text.isEmpty()) {
            return 0;
        }
        int feeds = (int) text.chars().filter(c -> c == '\n').count();
        return text.endsWith("\n") ? feeds : feeds + 1;
    }

    /** The bytes of a file as they are in the repository: an image to be shown, anything else to be saved. */
    @GetMapping("/raw")
    ResponseEntity<StreamingResponseBody> raw(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev)
            throws IOException {
        try (CallerContext context = contexts.open(caller);
                MirrorReader reader = context.mirror(context.repository(name))) {
            Found found = find(context, context.repository(name), reader, rev, path);
            if (found.entry.kind() == SourceTree.Kind.SUBMODULE) {
                throw new NotFoundException(path + " is a submodule and has no content of its own.");
            }
            if (found.entry.bytes() > largestFile) {
                throw new TooLargeException(path + " has " + found.entry.bytes() + " bytes; at most " + largestFile
                        + " are given. Get it from the repository itself, with git cat-file.");
            }
            Repository repository = context.repository(name);
            Downloads.Piece content = new Downloads.Piece(found.entry.bytes(), () -> {
                try (CallerContext again = contexts.open(caller);
                        MirrorReader mirror = again.mirror(again.repository(repository.name()))) {
                    return mirror.blob(found.entry.id());
                }
            });
            String image = IMAGES.get(ending(path));
            String fileName = path.substring(path.lastIndexOf('/') + 1);
            return ResponseEntity.ok()
                    .contentType(image == null ? MediaType.APPLICATION_OCTET_STREAM : MediaType.parseMediaType(image))
                    .header(
                            HttpHeaders.CONTENT_DISPOSITION,
                            (image == null ? ContentDisposition.attachment() : ContentDisposition.inline())
                                    .filename(fileName, StandardCharsets.UTF_8)
                                    .build()
                                    .toString())
                    .header("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
                    .body(downloads.body(writer -> writer.write(content)));
        }
    }

    private static String ending(String path) {
        return path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }

    private static Found find(
            CallerContext context, Repository repository, MirrorReader reader, String revision, String path)
            throws IOException {
        String name = repository.name();
        View view = context.view();
        Optional<Integer> number = view.branchNumber(name, revision);
        if (number.isPresent()) {
            Branch branch = view.branch(number.get());
            SnapshotReader snapshot = view.snapshot(number.get());
            OptionalInt file = snapshot.find(path);
            if (file.isEmpty()) {
                throw new NotFoundException("There is no file " + path + " on " + branch.name() + " of " + name
                        + ". Paths start at the repository's root.");
            }
            SnapshotFile found = snapshot.file(file.getAsInt());
            return new Found(
                    branch.name(),
                    branch.commit(),
                    entry(found),
                    Optional.of(found.type()),
                    Traits.labels(found.traits()));
        }
        if (revision.isEmpty()) {
            throw Revisions.notIndexed(repository);
        }
        String commit = Revisions.named(name, reader, revision);
        return new Found(
                "",
                commit,
                reader.entry(commit, path)
                        .orElseThrow(() -> new NotFoundException("There is no file " + path + " at " + revision + " in "
                                + name + ". Paths start at the repository's root.")),
                Optional.empty(),
                List.of());
    }

    private static SourceTree.Entry entry(SnapshotFile file) {
        SourceTree.Kind kind = switch (file.standing()) {
            case SUBMODULE -> SourceTree.Kind.SUBMODULE;
            case LINK -> SourceTree.Kind.LINK;
            default -> SourceTree.Kind.FILE;
        };
        return new SourceTree.Entry(file.path(), file.id(), kind, file.bytes());
    }

    /** Files whose text is not searched, or not analysed, and why. */
    @GetMapping("/skipped")
    SkippedFiles skipped(Caller caller, @PathVariable String name, @RequestParam(defaultValue = "") String branch) {
        try (CallerContext context = contexts.open(caller)) {
            context.repository(name);
            View view = context.view();
            int branchNumber = view.branchNumber(name, branch)
                    .orElseThrow(
                            () -> new NotFoundException("Branch \"" + branch + "\" of " + name + " is not indexed."));
            SnapshotReader snapshot = view.snapshot(branchNumber);
            List<SkippedFiles.File> files = new ArrayList<>();
            for (int file = 0; file < snapshot.count(); file++) {
                if (snapshot.standing(file) == Standing.SEARCHED
                        && view.location(branchNumber, file)
                                .filter(found -> found.segment().isGivenUp(found.blob()))
                                .isPresent()) {
                    files.add(new SkippedFiles.File(
                            snapshot.path(file),
                            snapshot.bytes(file),
                            "its text is searched, but what it declares is not known: its analysis was given up"));
                }
                if (snapshot.standing(file) != Standing.SEARCHED) {
                    files.add(new SkippedFiles.File(
                            snapshot.path(file),
                            snapshot.bytes(file),
                            snapshot.standing(file).reason()));
                }
            }
            return new SkippedFiles(
                    name,
                    view.branch(branchNumber).name(),
                    view.branch(branchNumber).commit(),
                    files);
        }
    }
}
