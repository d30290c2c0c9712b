package dev.oddbeacon.server.repositories;

import dev.oddbeacon.api.Outline;
import dev.oddbeacon.core.search.FileOutline;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.index.Catalogue;
import dev.oddbeacon.server.index.LiveIndex;
import dev.oddbeacon.server.web.NotFoundException;
import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.OptionalInt;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/repositories/{name}/outline}: what a file declares. */
@RestController
@RequestMapping("/api/v1/repositories/{name}")
class OutlineController {
    private static final int MOST = 5_000;

    private final Catalogue catalogue;
    private final LiveIndex index;

    OutlineController(Catalogue catalogue, LiveIndex index) {
        this.catalogue = catalogue;
        this.index = index;
    }

    @Operation(summary = "What a file declares", description = "On an indexed branch; at most 5,000 declarations.")
    @GetMapping("/outline")
    Outline outline(@PathVariable String name, @RequestParam String path, @RequestParam(defaultValue = "") String rev) {
        catalogue.find(name).orElseThrow(() -> new NotFoundException("There is no repository " + name + "."));
        View view = index.acquire();
        try {
            int rank = view.rank(name, rev).orElseThrow(() -> new NotFoundException(rev.isEmpty() ? name + " is not indexed yet." : rev + " of " + name
                    + " is not indexed, and only indexed branches have outlines. The page of repositories lists them."));
            Branch branch = view.branch(rank);
            OptionalInt file = view.snapshot(rank).find(path);
            if (file.isEmpty()) {
                throw new NotFoundException("There is no file " + path + " on " + branch.name() + " of " + name + ". Paths start at the repository's root.");
            }
            FileOutline outline = FileOutline.of(view, rank, file.getAsInt(), MOST);
            List<Outline.Symbol> symbols = outline.symbols().stream().map(symbol -> new Outline.Symbol(symbol.name(), symbol.kind().label(), symbol.container(), symbol.depth(), symbol.line(), symbol.endLine(),
                    symbol.column(), symbol.signature())).toList();
            return new Outline(name, branch.name(), branch.commit(), path, view.snapshot(rank).type(file.getAsInt()), outline.language().orElse(null), outline.total(), symbols);
        } finally {
            view.release();
        }
    }
}
