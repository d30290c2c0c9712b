package dev.oddbeacon.server.people;

import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Desks;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * {@code /api/v1/desk}: what follows a person from browser to browser, as the console keeps it: earlier searches, opened
 * files, layout. It is encrypted, and nobody else's.
 */
@RestController
@RequestMapping("/api/v1/desk")
class DeskController {
    private static final Set<String> PARTS = Set.of("searches", "opened", "pinned", "layout");
    private static final int LONGEST = 200_000; // characters

    private final Desks desks;

    DeskController(Desks desks) {
        this.desks = desks;
    }

    /** All parts that were kept, by name. */
    @GetMapping
    Map<String, JsonNode> all(Caller caller) {
        Map<String, JsonNode> parts = new TreeMap<>();
        desks.of(account(caller))
                .forEach((part, json) -> parts.put(part, JsonMapper.shared().readTree(json)));
        return parts;
    }

    /** Keeps a part in place of what was kept of it. @param part searches, opened, pinned or layout */
    @PutMapping("/{part}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void keep(Caller caller, @PathVariable String part, @RequestBody JsonNode content) {
        Account account = account(caller);
        if (!PARTS.contains(part)) {
            throw new NotFoundException("A desk has the parts searches, opened, pinned and layout.");
        }
        String json = JsonMapper.shared().writeValueAsString(content);
        if (json.length() > LONGEST) {
            throw new BadRequestException("This part is longer than " + LONGEST + " characters. Leave old things out.");
        }
        desks.keep(account, part, json);
    }

    private static Account account(Caller caller) {
        return caller.account()
                .orElseThrow(() ->
                        new NotFoundException("Nobody signs in at this service: such things are kept in the browser."));
    }
}
