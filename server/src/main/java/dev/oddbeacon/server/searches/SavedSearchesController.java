package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.FollowedFileProblem;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import io.swagger.v3.oas.annotations.Operation;
import java.nio.charset.StandardCharsets;
import java.util.List;
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

/** {@code /api/v1/saved-searches}: searches of any subject, kept under a name. */
@RestController
@RequestMapping("/api/v1/saved-searches")
class SavedSearchesController {
    private static final String YAML = "application/yaml";

    private final SavedSearches searches;
    private final FollowedSearches followed;
    private final Contexts contexts;

    SavedSearchesController(SavedSearches searches, FollowedSearches followed, Contexts contexts) {
        this.searches = searches;
        this.followed = followed;
        this.contexts = contexts;
    }

    @Operation(
            summary = "Saved searches",
            description =
                    "One's own, those of one's teams, and everybody's, by name; of the same name the nearest comes first.")
    @GetMapping
    List<SavedSearch> all(Caller caller) {
        return searches.of(caller);
    }

    @Operation(
            summary = "One saved search",
            description = "Of several of the same name the nearest, unless of says whose is meant.")
    @GetMapping("/{name}")
    SavedSearch one(Caller caller, @PathVariable String name, @RequestParam(required = false) String of) {
        return searches.get(caller, name, Optional.ofNullable(of));
    }

    @Operation(
            summary = "Saves a search, or changes one",
            description =
                    "It must be one that can be run. Who changes one names the version they have seen; 409 if somebody else has changed it since.")
    @PutMapping("/{name}")
    SavedSearch save(Caller caller, @PathVariable String name, @RequestBody SavedSearch.Change change) {
        return searches.save(caller, name, change);
    }

    @DeleteMapping("/{name}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(
            Caller caller,
            @PathVariable String name,
            @RequestParam(required = false) String of,
            @RequestParam(required = false) Long version) {
        searches.remove(caller, name, Optional.ofNullable(of), Optional.ofNullable(version));
    }

    @Operation(summary = "Saved searches as a YAML file", description = "All, or those that are named.")
    @GetMapping(path = "/file", produces = YAML)
    ResponseEntity<byte[]> export(Caller caller, @RequestParam(required = false) List<String> name) {
        List<SavedSearch> wanted = name == null
                ? searches.of(caller)
                : name.stream()
                        .map(each -> searches.get(caller, each, Optional.empty()))
                        .toList();
        return ResponseEntity.ok()
                .header("Content-Disposition", "attachment; filename=\"saved-searches.yaml\"")
                .body(SavedSearchFile.write(wanted).getBytes(StandardCharsets.UTF_8));
    }

    @Operation(
            summary = "Mistakes in files of repositories that keep saved searches",
            description =
                    "Files .oddbeacon/*.yaml on the default branch are followed. What a file with a mistake held before stays.")
    @GetMapping("/file/problems")
    List<FollowedFileProblem> problems(Caller caller) {
        try (CallerContext context = contexts.open(caller)) {
            return followed.problems(context);
        }
    }

    @Operation(
            summary = "Takes saved searches from a YAML file",
            description =
                    "All of them, or none if anything is wrong; 409 if one is there already, unless replace is true.")
    @PostMapping(
            path = "/file",
            consumes = {YAML, "text/yaml", "text/plain", "application/octet-stream"})
    List<SavedSearch> importFile(
            Caller caller,
            @RequestBody byte[] file,
            @RequestParam(defaultValue = "everybody") String of,
            @RequestParam(defaultValue = "false") boolean replace) {
        return searches.saveAll(caller, SavedSearchFile.read(new String(file, StandardCharsets.UTF_8), of), replace);
    }
}
