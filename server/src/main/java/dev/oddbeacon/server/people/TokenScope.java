package dev.oddbeacon.server.people;

import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Which repositories a token may be for: those that whoever makes it sees. */
@Component
class TokenScope {
    private final Contexts contexts;

    TokenScope(Contexts contexts) {
        this.contexts = contexts;
    }

    /** @throws BadRequestException if it names one that the caller does not see */
    void checkRepositories(Caller caller, Optional<NewToken> wanted) {
        List<String> named = wanted.map(NewToken::repositories).orElse(List.of());
        if (named.isEmpty()) {
            return;
        }
        try (CallerContext context = contexts.open(caller)) {
            for (String name : named) {
                if (name == null || context.find(name).isEmpty()) {
                    throw new BadRequestException("There is no repository " + name + ". Name some that you see.");
                }
            }
        }
    }
}
