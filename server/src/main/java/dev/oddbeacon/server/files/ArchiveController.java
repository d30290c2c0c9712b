package dev.oddbeacon.server.files;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.load.Downloads;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.TooLargeException;
import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** {@code /api/v1/archive}: several files in one download. */
@RestController
class ArchiveController {
    private static final int MOST = 1_000;

    private final Contexts contexts;
    private final Downloads downloads;
    private final long largestFile;

    ArchiveController(Contexts contexts, Downloads downloads, Settings settings) {
        this.contexts = contexts;
        this.downloads = downloads;
        this.largestFile = settings.largestFile().toBytes();
    }

    /** A file to be packed, and where its bytes are. */
    private record Packed(String name, Repository repository, ObjectId id, long bytes) {}

    @Operation(
            summary = "Several files as a ZIP archive",
            description = "file is repository/path, on the default branch; at most 1000.")
    @RequestMapping(
            path = "/api/v1/archive",
            method = {RequestMethod.GET, RequestMethod.POST},
            produces = "application/zip")
    ResponseEntity<StreamingResponseBody> archive(
            Caller caller, @RequestParam String[] file, HttpServletRequest request) {
        List<String> names = List.of(request.getParameterValues("file")); // as they are, commas and all
        if (names.size() > MOST) {
            throw new BadRequestException(
                    names.size() + " files are asked for; at most " + MOST + " can be packed at once.");
        }
        List<Packed> files = new ArrayList<>();
        try (CallerContext context = contexts.open(caller)) {
            names.stream().distinct().forEach(name -> files.add(find(context, name)));
        }
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"files.zip\"")
                .body(downloads.body(writer -> pack(caller, files, writer)));
    }

    /** Packs one file after the other; what is packed is written before the next one is read. */
    private void pack(Caller caller, List<Packed> files, Downloads.Writer writer) throws IOException {
        ByteArrayOutputStream packed = new ByteArrayOutputStream();
        ZipOutputStream zip = new ZipOutputStream(packed);
        Set<String> names = new HashSet<>();
        for (Packed file : files) {
            String name = ArchiveNames.unique(ArchiveNames.harmless(file.name), names);
            writer.write(new Downloads.Piece(file.bytes, () -> {
                try (CallerContext context = contexts.open(caller);
                        MirrorReader reader = context.mirror(context.repository(file.repository.name()))) {
                    zip.putNextEntry(new ZipEntry(name));
                    zip.write(reader.blob(file.id));
                    zip.closeEntry();
                    return drained(packed);
                }
            }));
        }
        writer.write(new Downloads.Piece(0, () -> {
            zip.finish();
            return drained(packed);
        }));
    }

    private static byte[] drained(ByteArrayOutputStream buffer) {
        byte[] bytes = buffer.toByteArray();
        buffer.reset();
        return bytes;
    }

    private Packed find(CallerContext context, String name) {
        View view = context.view();
        int slash = name.indexOf('/');
        String repository = slash < 0 ? name : name.substring(0, slash);
        String path = slash < 0 ? "" : name.substring(slash + 1);
        Repository entry = context.find(repository)
                .orElseThrow(() -> new NotFoundException(
                        "There is no repository " + repository + ". Files are named repository/path."));
        int branchNumber = view.branchNumber(repository, "")
                .orElseThrow(() -> new NotFoundException(repository + " is not indexed yet."));
        SnapshotReader snapshot = view.snapshot(branchNumber);
        OptionalInt file = snapshot.find(path);
        if (file.isEmpty() || snapshot.standing(file.getAsInt()) == Standing.SUBMODULE) {
            throw new NotFoundException("There is no file " + path + " on "
                    + view.branch(branchNumber).name() + " of " + repository + ".");
        }
        long bytes = snapshot.bytes(file.getAsInt());
        if (bytes > largestFile) {
            throw new TooLargeException(name + " has " + bytes + " bytes; at most " + largestFile
                    + " are given. Leave it out, or get it from the repository itself.");
        }
        return new Packed(name, entry, snapshot.id(file.getAsInt()), bytes);
    }
}
