package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.api.RepositoryInfo;
import java.util.Locale;

/** Repositories on the wire. */
public final class RepositoryInfos {
    private RepositoryInfos() {}

    public static RepositoryInfo of(Repository repository) {
        Repository.Past past = repository.past();
        return new RepositoryInfo(
                repository.name(),
                repository.title(),
                repository.location(),
                repository.labels(),
                repository.state().name().toLowerCase(Locale.ROOT),
                repository.problem().orElse(null),
                repository
                        .progress()
                        .map(progress ->
                                new RepositoryInfo.Progress(progress.phase(), progress.done(), progress.total()))
                        .orElse(null),
                repository.branches().stream()
                        .map(branch -> new RepositoryInfo.Branch(
                                branch.name(),
                                branch.commit(),
                                branch.committed(),
                                branch.indexed(),
                                branch.files(),
                                branch.lines(),
                                branch.bytes(),
                                branch.skipped()))
                        .toList(),
                new RepositoryInfo.History(
                        past.complete(),
                        past.commits(),
                        past.oldest().orElse(null),
                        past.cut(),
                        past.withoutLines(),
                        past.problem().orElse(null)));
    }
}
