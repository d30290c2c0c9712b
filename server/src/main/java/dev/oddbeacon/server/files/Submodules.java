package dev.oddbeacon.server.files;

import dev.oddbeacon.api.Submodule;
import dev.oddbeacon.core.ingest.SourceTree;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.git.MirrorReader;
import dev.oddbeacon.git.SubmoduleLocations;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.catalogue.Locations;
import dev.oddbeacon.server.catalogue.Repository;
import java.io.IOException;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Where submodules lead: to the registered repository that lies where {@code .gitmodules} says, if the caller sees it. */
@Component
class Submodules {
    private static final String FILE = ".gitmodules";

    private final Locations locations;

    Submodules(Locations locations) {
        this.locations = locations;
    }

    /** The submodules of one commit of a repository. */
    final class Of {
        private final CallerContext context;
        private final SubmoduleLocations told;

        private Of(CallerContext context, SubmoduleLocations told) {
            this.context = context;
            this.told = told;
        }

        /** @param commit that is wanted of it */
        Submodule at(String path, ObjectId commit) {
            Optional<String> location = told.of(path);
            return new Submodule(
                    commit.toString(),
                    location.orElse(null),
                    location.flatMap(there -> locations.at(there).stream()
                                    .flatMap(repository -> context.find(repository.name()).stream())
                                    .findFirst())
                            .map(Repository::name)
                            .orElse(null));
        }
    }

    Of of(CallerContext context, Repository repository, MirrorReader reader, String commit) throws IOException {
        Optional<SourceTree.Entry> file = reader.entry(commit, FILE);
        byte[] content = file.isPresent() && file.get().kind() == SourceTree.Kind.FILE
                ? reader.blob(file.get().id())
                : new byte[0];
        return new Of(context, new SubmoduleLocations(content, repository.location()));
    }
}
