package dev.oddbeacon.server.watches;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import org.springframework.http.CacheControl;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;

/** {@code GET /api/v1/feeds/{key}}: what a watch tells, for readers of feeds, which do not sign in. */
@RestController
class FeedController {
    private static final int MOST = 50;

    private final Watches watches;

    FeedController(Watches watches) {
        this.watches = watches;
    }

    @Operation(
            summary = "What a watch tells, as an Atom feed",
            description =
                    "For whoever has its address, which nobody can guess; it tells what the owner of the watch may see.")
    @GetMapping(path = "/api/v1/feeds/{key}", produces = AtomFeed.TYPE)
    ResponseEntity<byte[]> feed(@PathVariable String key, HttpServletRequest request) {
        Watches.OfFeed feed = watches.feed(key, MOST);
        String own = ServletUriComponentsBuilder.fromRequest(request).toUriString();
        String console = ServletUriComponentsBuilder.fromContextPath(request).toUriString();
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noCache().cachePrivate())
                .body(AtomFeed.write(feed, own, console).getBytes(StandardCharsets.UTF_8));
    }
}
