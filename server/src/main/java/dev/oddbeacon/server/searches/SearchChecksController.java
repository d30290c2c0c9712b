package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.Comparison;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.SearchCheck;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.results.ResultLines;
import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/saved-searches/{name}/…}: all that a saved search finds, now and earlier, and what is different. */
@RestController
@RequestMapping("/api/v1/saved-searches/{name}")
class SearchChecksController {
    private static final String LINES = "application/jsonl";

    private final SavedSearches searches;
    private final SearchChecks checks;

    SearchChecksController(SavedSearches searches, SearchChecks checks) {
        this.searches = searches;
        this.checks = checks;
    }

    private KnownSearch find(Caller caller, String name, String of) {
        return searches.find(caller, name, Optional.ofNullable(of));
    }

    private static ResponseEntity<byte[]> lines(String file, List<Result> results) {
        return ResponseEntity.ok()
                .header("Content-Disposition", "attachment; filename=\"" + file + ".jsonl\"")
                .body(ResultLines.write(results).getBytes(StandardCharsets.UTF_8));
    }

    @Operation(
            summary = "All that a saved search finds now",
            description = "As JSON lines, at most 200,000, in the order of repositories, branches, paths and lines.")
    @GetMapping(path = "/results", produces = LINES)
    ResponseEntity<byte[]> results(
            Caller caller, @PathVariable String name, @RequestParam(required = false) String of) {
        return lines(name, checks.now(caller, find(caller, name, of)));
    }

    @Operation(summary = "What a saved search found at times that were kept", description = "The oldest first.")
    @GetMapping("/checks")
    List<SearchCheck> all(Caller caller, @PathVariable String name, @RequestParam(required = false) String of) {
        return checks.of(caller, find(caller, name, of));
    }

    @Operation(
            summary = "Keeps what a saved search finds now, under a name",
            description = "409 if there is a check of that name, unless replace is true.")
    @PutMapping("/checks/{check}")
    SearchCheck keep(
            Caller caller,
            @PathVariable String name,
            @PathVariable String check,
            @RequestParam(required = false) String of,
            @RequestParam(defaultValue = "false") boolean replace) {
        return checks.keep(caller, find(caller, name, of), check, replace);
    }

    @Operation(summary = "What a saved search found at an earlier check", description = "As JSON lines.")
    @GetMapping(path = "/checks/{check}", produces = LINES)
    ResponseEntity<byte[]> one(
            Caller caller,
            @PathVariable String name,
            @PathVariable String check,
            @RequestParam(required = false) String of) {
        return lines(name + "-" + check, checks.get(caller, find(caller, name, of), check));
    }

    @DeleteMapping("/checks/{check}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(
            Caller caller,
            @PathVariable String name,
            @PathVariable String check,
            @RequestParam(required = false) String of) {
        checks.remove(caller, find(caller, name, of), check);
    }

    @Operation(
            summary = "What has come and what has gone",
            description =
                    "Compared with an earlier check, or with a day; without either, all that is found has come. A result is the same one although lines move, its file is renamed, or a part of its line is edited.")
    @GetMapping("/comparison")
    Comparison compare(
            Caller caller,
            @PathVariable String name,
            @RequestParam(required = false) String of,
            @RequestParam(required = false) String with)
            throws IOException {
        return checks.compare(caller, find(caller, name, of), Objects.requireNonNullElse(with, ""));
    }

    @Operation(
            summary = "What has come and what has gone since a file was written",
            description = "Compared with JSON lines, as GET …/results answers them.")
    @PostMapping(
            path = "/comparison",
            consumes = {LINES, "text/plain", "application/octet-stream"})
    Comparison compareWith(
            Caller caller,
            @PathVariable String name,
            @RequestParam(required = false) String of,
            @RequestBody byte[] lines) {
        return checks.compare(
                caller, find(caller, name, of), ResultLines.read(new String(lines, StandardCharsets.UTF_8)));
    }
}
