package dev.oddbeacon.server.repositories;

import dev.oddbeacon.api.Recognised;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.git.Location;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.catalogue.Repository;
import io.swagger.v3.oas.annotations.Operation;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/recognised}: the repositories that somebody's work tree belongs to. */
@RestController
class RecognisedController {
    private final Contexts contexts;

    RecognisedController(Contexts contexts) {
        this.contexts = contexts;
    }

    @Operation(
            summary = "The repositories that a work tree belongs to",
            description =
                    "By where it is or what it was cloned from; where no location fits, by the first commits of its history.")
    @GetMapping("/api/v1/recognised")
    List<Recognised> recognised(
            Caller caller,
            @RequestParam(defaultValue = "") List<String> location,
            @RequestParam(defaultValue = "") List<String> commit)
            throws IOException {
        Set<String> wanted =
                location.stream().map(Location::key).flatMap(Optional::stream).collect(Collectors.toSet());
        try (CallerContext context = contexts.open(caller)) {
            List<Recognised> byLocation = context.repositories().stream()
                    .filter(repository -> Location.key(repository.location())
                            .filter(wanted::contains)
                            .isPresent())
                    .map(repository -> new Recognised(repository.name(), "its location is " + repository.location()))
                    .toList();
            return byLocation.isEmpty() ? byCommit(context, commit) : byLocation;
        }
    }

    private static List<Recognised> byCommit(CallerContext context, List<String> commits) throws IOException {
        List<Recognised> found = new ArrayList<>();
        List<String> whole = commits.stream().filter(ObjectId::isId).toList();
        for (Repository repository : whole.isEmpty() ? List.<Repository>of() : context.repositories()) {
            if (!context.hasMirror(repository)) {
                continue;
            }
            try (MirrorReader reader = context.mirror(repository)) {
                for (String id : whole) {
                    if (reader.commit(id).isPresent()) {
                        found.add(new Recognised(repository.name(), "it has the first commit, " + id.substring(0, 10)));
                        break;
                    }
                }
            }
        }
        return found;
    }
}
