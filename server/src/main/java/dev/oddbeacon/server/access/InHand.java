package dev.oddbeacon.server.access;

import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.Optional;

/** The parameter {@code near}: the file that somebody has in hand. */
public final class InHand {
    private InHand() {}

    /**
     * Reads it.
     *
     * @param near repository/path, or null
     * @param byRelevance whether the order leaves something to say
     * @throws dev.oddbeacon.server.web.NotFoundException if the caller sees no such repository
     */
    public static Optional<FileInHand> of(CallerContext context, String near, boolean byRelevance) {
        if (near == null) {
            return Optional.empty();
        }
        if (!byRelevance) {
            throw new BadRequestException(
                    "near orders files by how close they are. Leave order out, or give order=relevance.");
        }
        FileInHand file = FileInHand.parse(near)
                .orElseThrow(() -> new BadRequestException(
                        "near is \"" + near + "\"; it must be a file as repository/path: fare-gate/README.md."));
        context.repository(file.repository());
        return Optional.of(file);
    }
}
