package dev.oddbeacon.server.places;

import dev.oddbeacon.api.PlacesAnswer;
import dev.oddbeacon.core.places.Place;
import dev.oddbeacon.core.places.PlaceMatcher;
import dev.oddbeacon.core.places.PlaceParser;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.parameters.RequestBody;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/** {@code POST /api/v1/places}: what a build log or a stack trace names, found in the index. */
@RestController
class PlacesController {
    private static final int MOST = 5_000;
    private static final int LONGEST = 8 << 20; // bytes
    private static final int LONGEST_SHOWN = 1_000;

    private final Contexts contexts;

    PlacesController(Contexts contexts) {
        this.contexts = contexts;
    }

    @Operation(
            summary = "The places that a text names",
            description =
                    "Paste a build log, a stack trace or any list of file:line:column. Exclusion sets that apply by default do not apply here.",
            requestBody =
                    @RequestBody(
                            description = "the text, UTF-8",
                            required = true,
                            content =
                                    @Content(
                                            mediaType = MediaType.TEXT_PLAIN_VALUE,
                                            schema = @Schema(type = "string"))))
    @PostMapping(path = "/api/v1/places", consumes = MediaType.TEXT_PLAIN_VALUE)
    PlacesAnswer places(Caller caller, HttpServletRequest request, ScopeParameters within) throws IOException {
        long start = System.nanoTime();
        byte[] body = request.getInputStream().readNBytes(LONGEST + 1); // no more of it than is taken
        String text = new String(body, StandardCharsets.UTF_8);
        if (text.isBlank()) {
            throw new InvalidQueryException(
                    "The text is empty. Send a build log, a stack trace or a list of file:line:column.");
        }
        if (body.length > LONGEST) {
            throw new InvalidQueryException(
                    "The text has more than " + (LONGEST >> 20) + " MiB. Send the part that names places.");
        }
        try (CallerContext context = contexts.open(caller)) {
            Scope scope = context.scopeWithoutDefaults(within);
            context.check(scope.query());
            List<Place> found = PlaceParser.parse(text, MOST + 1);
            boolean more = found.size() > MOST;
            List<PlacesAnswer.Place> places =
                    PlaceMatcher.match(context.search(), scope, more ? found.subList(0, MOST) : found).stream()
                            .map(matched -> place(context.view(), matched))
                            .toList();
            int matched = (int)
                    places.stream().filter(place -> !place.files().isEmpty()).count();
            return new PlacesAnswer(places, matched, more, Parameters.millisSince(start));
        }
    }

    private static PlacesAnswer.Place place(View view, PlaceMatcher.Matched matched) {
        Place place = matched.place();
        List<PlacesAnswer.File> files = matched.candidates().stream()
                .map(candidate -> {
                    Branch branch = view.branch(candidate.branchNumber());
                    return new PlacesAnswer.File(
                            branch.repository(),
                            branch.name(),
                            branch.commit(),
                            candidate.path(),
                            view.snapshot(candidate.branchNumber()).lines(candidate.file()));
                })
                .toList();
        int from = Math.max(0, place.end() - LONGEST_SHOWN); // the name stays within what is shown
        String text = place.text().substring(from, Math.min(place.text().length(), from + LONGEST_SHOWN));
        return new PlacesAnswer.Place(
                place.textLine(),
                place.start() - from,
                place.end() - from,
                text,
                place.path(),
                place.line(),
                place.column(),
                files,
                matched.isGuess());
    }
}
