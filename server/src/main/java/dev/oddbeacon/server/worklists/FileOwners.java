package dev.oddbeacon.server.worklists;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.core.owners.Owners;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.server.access.CallerContext;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Who owns the files that results are in, as their repositories say at what is indexed now. */
@Component
class FileOwners {
    private static final Logger LOG = LoggerFactory.getLogger(FileOwners.class);
    private static final int MOST = 1_000; // files that are kept as they were read
    private static final long LARGEST = 3_000_000; // bytes

    private final Cache<ObjectId, Owners> read =
            Caffeine.newBuilder().maximumSize(MOST).build();

    /** In the order in which they are named; none of a commit. */
    List<String> of(CallerContext context, Result result) {
        if (result.path() == null) {
            return List.of();
        }
        return context.view()
                .branchNumber(result.repository(), Objects.requireNonNullElse(result.branch(), ""))
                .or(() -> context.view().branchNumber(result.repository(), ""))
                .map(number -> owners(context, result.repository(), number).of(result.path()))
                .orElse(List.of());
    }

    private Owners owners(CallerContext context, String repository, int branch) {
        SnapshotReader snapshot = context.view().snapshot(branch);
        Optional<Integer> file = Owners.PATHS.stream()
                .map(snapshot::find)
                .filter(OptionalInt::isPresent)
                .map(OptionalInt::getAsInt)
                .findFirst();
        if (file.isEmpty() || snapshot.bytes(file.get()) > LARGEST) {
            return Owners.NONE;
        }
        ObjectId id = snapshot.id(file.get());
        Owners known = read.getIfPresent(id);
        if (known != null) {
            return known;
        }
        try (MirrorReader mirror = context.mirror(context.repository(repository))) {
            Owners owners = Owners.parse(new String(mirror.blob(id), StandardCharsets.UTF_8));
            read.put(id, owners);
            return owners;
        } catch (IOException e) {
            LOG.warn("Owners of files of {} cannot be read: {}", repository, e.getMessage());
            return Owners.NONE;
        }
    }
}
