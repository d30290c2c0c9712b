package dev.oddbeacon.server.worklists;

import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/worklists}: saved searches whose results a team ticks off. */
@RestController
@RequestMapping("/api/v1/worklists")
class WorklistsController {
    private static final int USUAL = 1_000;
    private static final int MOST = 10_000;

    private final Worklists worklists;

    WorklistsController(Worklists worklists) {
        this.worklists = worklists;
    }

    @Operation(summary = "Worklists of the searches that you have", description = "By name.")
    @GetMapping
    List<Worklist> all(Caller caller) {
        return worklists.of(caller);
    }

    @Operation(
            summary = "Makes a worklist of a saved search",
            description =
                    "What the search finds becomes its items within a second, and new matches join. By whoever may change the search.")
    @PutMapping("/{search}")
    Worklist add(Caller caller, @PathVariable String search, @RequestParam(required = false) String of) {
        return worklists.add(caller, search, Optional.ofNullable(of));
    }

    @Operation(summary = "Ends a worklist, with what was ticked off", description = "The search stays.")
    @DeleteMapping("/{search}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(Caller caller, @PathVariable String search, @RequestParam(required = false) String of) {
        worklists.remove(caller, search, Optional.ofNullable(of));
    }

    @Operation(
            summary = "Items of a worklist",
            description =
                    "In the order of repositories, paths and lines. state: open, done, stays, gone; all without it. owner: only items of files that are theirs, as CODEOWNERS of their repository says. since: only those that were changed since the at of an earlier answer.")
    @GetMapping("/{search}/items")
    Worklist.Items items(
            Caller caller,
            @PathVariable String search,
            @RequestParam(required = false) String of,
            @RequestParam(required = false) List<String> state,
            @RequestParam(required = false) String owner,
            @RequestParam(required = false) String since,
            @RequestParam(required = false) Integer limit) {
        return worklists.items(
                caller,
                search,
                Optional.ofNullable(of),
                Optional.ofNullable(state).orElse(List.of()),
                Optional.ofNullable(owner),
                Optional.ofNullable(since).map(WorklistsController::moment),
                Parameters.range("limit", limit, USUAL, 1, MOST));
    }

    private static Instant moment(String text) {
        try {
            return Instant.parse(text);
        } catch (DateTimeParseException e) {
            throw new BadRequestException("since is \"" + text + "\"; it must be a moment, as 2026-01-31T08:00:00Z.");
        }
    }

    @Operation(
            summary = "Claims an item, ticks it off, or says why it stays",
            description =
                    "409 if it was changed since the version that is named. An item that is not found any more is gone by itself, and open again when it returns.")
    @PutMapping("/{search}/items/{id}")
    Worklist.Item change(
            Caller caller,
            @PathVariable String search,
            @PathVariable long id,
            @RequestParam(required = false) String of,
            @RequestBody Worklist.Change change) {
        return worklists.change(caller, search, Optional.ofNullable(of), id, change);
    }

    @Operation(
            summary = "How a worklist shrinks",
            description = "What was open at the end of each day on which something changed, and when nothing is left.")
    @GetMapping("/{search}/left")
    Worklist.Left left(Caller caller, @PathVariable String search, @RequestParam(required = false) String of) {
        return worklists.left(caller, search, Optional.ofNullable(of));
    }
}
