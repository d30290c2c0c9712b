package dev.oddbeacon.server.files;

import dev.oddbeacon.api.TypesAndTraits;
import dev.oddbeacon.core.source.FileTypes;
import dev.oddbeacon.core.source.Trait;
import java.util.Arrays;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/types}: what files can be. */
@RestController
class TypesController {
    @GetMapping("/api/v1/types")
    TypesAndTraits types() {
        return new TypesAndTraits(
                FileTypes.all().stream()
                        .map(type ->
                                new TypesAndTraits.Type(type.name(), type.title(), type.names(), type.interpreters()))
                        .toList(),
                Arrays.stream(Trait.values())
                        .map(trait -> new TypesAndTraits.Trait(trait.label(), trait.meaning()))
                        .toList());
    }
}
