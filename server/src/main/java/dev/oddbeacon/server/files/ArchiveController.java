package dev.oddbeacon.server.files;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
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

    ArchiveController(Contexts contexts) {
        this.contexts = contexts;
    }

    /** A file to be packed, and where its bytes are. */
    private record Packed(String name, Repository repository, ObjectId id) {}

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
                .body(out -> {
                    try (CallerContext context = contexts.open(caller);
                            ZipOutputStream zip = new ZipOutputStream(out)) {
                        for (Packed packed : files) {
                            try (MirrorReader reader = context.mirror(packed.repository)) {
                                zip.putNextEntry(new ZipEntry(packed.name));
                                zip.write(reader.blob(packed.id));
                                zip.closeEntry();
                            }
                        }
                    }
                });
    }

    private static Packed find(CallerContext context, String name) {
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
        if (file.isEmpty()
                || snapshot.standing(file.getAsInt()) == Standing.SUBMODULE
                || path.startsWith("../")
                || path.contains("/../")) {
            throw new NotFoundException("There is no file " + path + " on "
                    + view.branch(branchNumber).name() + " of " + repository + ".");
        }
        return new Packed(name, entry, snapshot.id(file.getAsInt()));
    }
}
