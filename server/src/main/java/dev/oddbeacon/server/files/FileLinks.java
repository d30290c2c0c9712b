package dev.oddbeacon.server.files;

import dev.oddbeacon.api.FileContent;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.web.ConsolePage;
import io.swagger.v3.oas.annotations.Hidden;
import java.io.IOException;
import java.util.List;
import java.util.stream.Collectors;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /file}: the page of the console that shows a file, with the lines that a link to it means. */
@RestController
class FileLinks {
    private static final int FIRST = 5; // lines of a file, where a link names none
    private static final int MOST = 12; // lines of an excerpt
    private static final int SHORT_COMMIT = 8;

    private final FilesController files;
    private final ConsolePage page;

    FileLinks(FilesController files, ConsolePage page) {
        this.files = files;
        this.page = page;
    }

    @Hidden
    @GetMapping("/file")
    ResponseEntity<String> page(
            Caller caller,
            @RequestParam(name = "in", defaultValue = "") String repository,
            @RequestParam(defaultValue = "") String path,
            @RequestParam(defaultValue = "") String rev,
            @RequestParam(defaultValue = "") String line) {
        return page.about(() -> about(caller, repository, path, rev, line));
    }

    private ConsolePage.About about(Caller caller, String repository, String path, String rev, String line)
            throws IOException {
        FileContent file = files.file(caller, repository, path, rev);
        String at = file.branch().isEmpty()
                ? file.commit()
                        .substring(0, Math.min(SHORT_COMMIT, file.commit().length()))
                : file.branch();
        String place = file.path() + (line.isEmpty() ? "" : ":" + line);
        String excerpt = file.text() == null
                ? file.type() + ", " + file.bytes() + " bytes"
                : excerpt(file.text().lines().toList(), line);
        return new ConsolePage.About(place + " in " + repository + " at " + at, excerpt);
    }

    /** @param line a number, a range of them as in 12-15, or empty */
    private static String excerpt(List<String> lines, String line) {
        int dash = line.indexOf('-');
        int from = line.isEmpty() ? 1 : Integer.parseInt(dash < 0 ? line : line.substring(0, dash));
        int to = line.isEmpty() ? FIRST : Integer.parseInt(line.substring(dash + 1));
        return lines.stream()
                .skip(Math.max(0, from - 1))
                .limit(Math.clamp((long) to - from + 1, 1, MOST))
                .collect(Collectors.joining("\n"));
    }
}
