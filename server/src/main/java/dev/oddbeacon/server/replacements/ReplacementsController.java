package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import io.swagger.v3.oas.annotations.Operation;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/replacements}: what stands instead of what a search matches, as patches. Nothing is written anywhere. */
@RestController
@RequestMapping("/api/v1/replacements")
class ReplacementsController {
    private static final int MOST_SHOWN = 500; // files
    private static final String PATCH = "text/x-diff";
    private static final String ZIP = "application/zip";

    private final Replacements replacements;

    ReplacementsController(Replacements replacements) {
        this.replacements = replacements;
    }

    @Operation(
            summary = "What a replacement would change",
            description =
                    "Of a search for lines or of a symbol, in texts, paths or both, and of lines that are edited: each match with its line before and after, and warnings. Generated, vendored, minified and translated files are listed, and not changed unless generated is true.")
    @PostMapping("/preview")
    Replacement.Preview preview(Caller caller, @RequestBody Replacement wanted) throws IOException {
        return replacements.preview(caller, wanted, MOST_SHOWN);
    }

    @Operation(
            summary = "A file as it would be",
            description = "Of one file that would change, its path and its text with all that is replaced.")
    @PostMapping("/file")
    Replacement.After file(
            Caller caller, @RequestBody Replacement wanted, @RequestParam String repository, @RequestParam String path)
            throws IOException {
        return replacements.file(caller, wanted, repository, path);
    }

    @Operation(
            summary = "A replacement as patches",
            description =
                    "That git apply takes at the commit that was searched. Of one repository, its patch; without one, a ZIP with REPOSITORY.patch for each, or REPOSITORY@BRANCH.patch where something changes on several branches.")
    @PostMapping(
            path = "/patches",
            produces = {ZIP, PATCH})
    ResponseEntity<byte[]> patches(
            Caller caller,
            @RequestBody Replacement wanted,
            @RequestParam(required = false) String repository,
            @RequestParam(required = false) String branch)
            throws IOException {
        Map<At, byte[]> patches = replacements.patches(caller, wanted);
        if (repository != null) {
            List<Map.Entry<At, byte[]>> of = patches.entrySet().stream()
                    .filter(each -> each.getKey().repository().equals(repository)
                            && (branch == null || each.getKey().branch().equals(branch)))
                    .toList();
            if (of.isEmpty()) {
                throw new NotFoundException("Nothing would change in " + repository + ".");
            }
            if (of.size() > 1) {
                throw new BadRequestException("Something would change on several branches of " + repository + ": "
                        + of.stream().map(each -> each.getKey().branch()).collect(Collectors.joining(", "))
                        + ". Name one as branch, or leave out repository for a ZIP of all.");
            }
            return ResponseEntity.ok()
                    .header("Content-Type", PATCH)
                    .header("Content-Disposition", "attachment; filename=\"" + repository + ".patch\"")
                    .body(of.getFirst().getValue());
        }
        if (patches.isEmpty()) {
            throw new NotFoundException("Nothing would change.");
        }
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(all)) {
            for (Map.Entry<At, byte[]> patch : patches.entrySet()) {
                At at = patch.getKey();
                long branches = patches.keySet().stream()
                        .filter(each -> each.repository().equals(at.repository()))
                        .count();
                String ofBranch = branches > 1 ? "@" + at.branch().replace('/', '_') : "";
                zip.putNextEntry(new ZipEntry(at.repository() + ofBranch + ".patch"));
                zip.write(patch.getValue());
                zip.closeEntry();
            }
        }
        return ResponseEntity.ok()
                .header("Content-Type", ZIP)
                .header("Content-Disposition", "attachment; filename=\"patches.zip\"")
                .body(all.toByteArray());
    }
}
