package dev.oddbeacon.server.search;

import dev.oddbeacon.api.PlacesAnswer;
import dev.oddbeacon.core.places.Place;
import dev.oddbeacon.core.places.PlaceMatcher;
import dev.oddbeacon.core.places.PlaceParser;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.CompiledQuery;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.search.Limits;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.exclusion.ExclusionSets;
import dev.oddbeacon.server.index.LiveIndex;
import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.parameters.RequestBody;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/** {@code POST /api/v1/places}: what a build log or a stack trace names, found in the index. */
@RestController
class PlacesController {
    private static final int MOST = 5_000;
    private static final int LONGEST = 8 << 20; // bytes
    private static final int LONGEST_SHOWN = 1_000;

    private final LiveIndex index;
    private final Asked asked;
    private final ExclusionSets sets;

    PlacesController(LiveIndex index, Asked asked, ExclusionSets sets) {
        this.index = index;
        this.asked = asked;
        this.sets = sets;
    }

    @Operation(summary = "The places that a text names", description = "Paste a build log, a stack trace or any list of file:line:column. Exclusion sets that apply by default do not apply here.",
            requestBody = @RequestBody(description = "the text, UTF-8", required = true, content = @Content(mediaType = MediaType.TEXT_PLAIN_VALUE, schema = @Schema(type = "string"))))
    @PostMapping(path = "/api/v1/places", consumes = MediaType.TEXT_PLAIN_VALUE)
    PlacesAnswer places(HttpServletRequest request, @ParameterObject ScopeParameters within) throws IOException {
        long start = System.nanoTime();
        byte[] body = request.getInputStream().readNBytes(LONGEST + 1); // no more of it than is taken
        String text = new String(body, StandardCharsets.UTF_8);
        if (text.isBlank()) {
            throw new InvalidQueryException("The text is empty. Send a build log, a stack trace or a list of file:line:column.");
        }
        if (body.length > LONGEST) {
            throw new InvalidQueryException("The text has more than " + (LONGEST >> 20) + " MiB. Send the part that names places.");
        }
        Query query = within.scope(List.of()).query();
        asked.check(query);
        View view = index.acquire();
        try {
            List<Place> found = PlaceParser.parse(text, MOST + 1);
            boolean more = found.size() > MOST;
            Limits limits = Limits.of(view, CompiledQuery.of(query, CaseMode.AUTO), sets.current());
            List<PlacesAnswer.Place> places = PlaceMatcher.match(view, limits, more ? found.subList(0, MOST) : found).stream().map(matched -> place(view, matched)).toList();
            int matched = (int) places.stream().filter(place -> !place.files().isEmpty()).count();
            return new PlacesAnswer(places, matched, more, Answers.millisSince(start));
        } finally {
            view.release();
        }
    }

    private static PlacesAnswer.Place place(View view, PlaceMatcher.Matched matched) {
        Place place = matched.place();
        List<PlacesAnswer.File> files = matched.candidates().stream().map(candidate -> {
            Branch branch = view.branch(candidate.rank());
            return new PlacesAnswer.File(branch.repository(), branch.name(), branch.commit(), candidate.path(), view.snapshot(candidate.rank()).lines(candidate.file()));
        }).toList();
        int from = Math.max(0, place.end() - LONGEST_SHOWN); // the name stays within what is shown
        String text = place.text().substring(from, Math.min(place.text().length(), from + LONGEST_SHOWN));
        return new PlacesAnswer.Place(place.textLine(), place.start() - from, place.end() - from, text, place.path(), place.line(), place.column(), files, matched.isGuess());
    }
}
