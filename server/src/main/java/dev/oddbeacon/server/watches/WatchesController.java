package dev.oddbeacon.server.watches;

import dev.oddbeacon.api.Watch;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
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

/** {@code /api/v1/watches}: who is told when something new matches a saved search. */
@RestController
@RequestMapping("/api/v1/watches")
class WatchesController {
    private static final int USUAL = 50;
    private static final int MOST = 200;

    private final Watches watches;

    WatchesController(Watches watches) {
        this.watches = watches;
    }

    @Operation(summary = "The searches that you watch", description = "By name.")
    @GetMapping
    List<Watch> all(Caller caller) {
        return watches.of(caller);
    }

    @Operation(
            summary = "Begins to watch a saved search, or changes how it is told",
            description =
                    "What matches already is not told. The answer holds the path of its Atom feed and the secret of its webhook when they are new, and never again.")
    @PutMapping("/{search}")
    Watch save(
            Caller caller,
            @PathVariable String search,
            @RequestParam(required = false) String of,
            @RequestBody Watch.Change change) {
        return watches.save(caller, search, Optional.ofNullable(of), change);
    }

    @DeleteMapping("/{search}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(Caller caller, @PathVariable String search, @RequestParam(required = false) String of) {
        watches.remove(caller, search, Optional.ofNullable(of));
    }

    @Operation(
            summary = "What came, and what went, since you watch",
            description =
                    "The newest first, of what you may see. Each match is told once, however lines move. before is the next of the page before.")
    @GetMapping("/{search}/notices")
    Watch.Notices notices(
            Caller caller,
            @PathVariable String search,
            @RequestParam(required = false) String of,
            @RequestParam(required = false) Long before,
            @RequestParam(required = false) Integer limit) {
        return watches.notices(
                caller,
                search,
                Optional.ofNullable(of),
                before == null ? Long.MAX_VALUE : before,
                Parameters.range("limit", limit, USUAL, 1, MOST));
    }

    @Operation(summary = "Messages to the webhook of a watch", description = "The newest first, at most a hundred.")
    @GetMapping("/{search}/deliveries")
    List<Watch.Delivery> deliveries(
            Caller caller, @PathVariable String search, @RequestParam(required = false) String of) {
        return watches.deliveries(caller, search, Optional.ofNullable(of));
    }

    @Operation(summary = "Sends a message again", description = "With the same id, so that its receiver can tell.")
    @PostMapping("/{search}/deliveries/{id}/again")
    Watch.Delivery again(
            Caller caller,
            @PathVariable String search,
            @PathVariable long id,
            @RequestParam(required = false) String of) {
        return watches.again(caller, search, Optional.ofNullable(of), id);
    }
}
