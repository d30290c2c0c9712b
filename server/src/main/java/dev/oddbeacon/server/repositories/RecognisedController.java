package dev.oddbeacon.server.repositories;

import dev.oddbeacon.api.Recognised;
import dev.oddbeacon.git.Location;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.index.Catalogue;
import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.nio.file.Files;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/recognised}: the repositories that somebody's work tree belongs to. */
@RestController
class RecognisedController {
    private static final Pattern COMMIT = Pattern.compile("[0-9a-f]{40}");

    private final Settings settings;
    private final Catalogue catalogue;

    RecognisedController(Settings settings, Catalogue catalogue) {
        this.settings = settings;
        this.catalogue = catalogue;
    }

    @Operation(summary = "The repositories that a work tree belongs to",
            description = "By where it is or what it was cloned from; where no location fits, by the first commits of its history.")
    @GetMapping("/api/v1/recognised")
    List<Recognised> recognised(@RequestParam(defaultValue = "") List<String> location, @RequestParam(defaultValue = "") List<String> commit) throws IOException {
        Set<String> wanted = location.stream().map(Location::key).flatMap(Optional::stream).collect(Collectors.toSet());
        List<Recognised> byLocation = catalogue.all().stream().filter(info -> Location.key(info.location()).filter(wanted::contains).isPresent())
                .map(info -> new Recognised(info.name(), "its location is " + info.location())).toList();
        return byLocation.isEmpty() ? byCommit(commit) : byLocation;
    }

    private List<Recognised> byCommit(List<String> commits) throws IOException {
        List<Recognised> found = new ArrayList<>();
        List<String> whole = commits.stream().filter(id -> COMMIT.matcher(id).matches()).toList();
        for (Catalogue.Entry entry : whole.isEmpty() ? List.<Catalogue.Entry>of() : catalogue.entries()) {
            if (!Files.exists(settings.mirror(entry.id()))) {
                continue;
            }
            try (MirrorReader reader = new MirrorReader(settings.mirror(entry.id()))) {
                for (String id : whole) {
                    if (reader.commit(id).isPresent()) {
                        found.add(new Recognised(entry.info().name(), "it has the first commit, " + id.substring(0, 10)));
                        break;
                    }
                }
            }
        }
        return found;
    }
}
