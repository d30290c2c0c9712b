package dev.oddbeacon.server.catalogue;

import dev.oddbeacon.api.RepositoryInfo;
import java.util.Locale;
import org.springframework.stereotype.Component;

/** Repositories on the wire. */
@Component
public class RepositoryInfos {
    private final Activity activity;

    RepositoryInfos(Activity activity) {
        this.activity = activity;
    }

    /** A repository as it is now. */
    public RepositoryInfo of(Repository repository) {
        Repository.Past past = repository.past();
        return new RepositoryInfo(
                repository.name(),
                repository.title(),
                repository.location(),
                repository.labels(),
                repository.state().name().toLowerCase(Locale.ROOT),
                repository.problem().orElse(null),
                activity.progress(repository.id())
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
                                branch.skipped(),
                                branch.unread()))
                        .toList(),
                new RepositoryInfo.History(
                        past.complete(),
                        past.commits(),
                        past.oldest().orElse(null),
                        past.cut(),
                        past.withoutLines(),
                        past.problem().orElse(null)),
                activity.check(repository.id()).map(RepositoryInfos::following).orElse(null),
                new RepositoryInfo.Disk(
                        repository.disk().mirror(), repository.disk().past()));
    }

    private static RepositoryInfo.Following following(Checked check) {
        Checked.Behind behind = check.behind();
        return new RepositoryInfo.Following(
                check.answered().orElse(null),
                check.changed(),
                behind.is(),
                behind.commits().isPresent() ? behind.commits().getAsInt() : null,
                check.problem().orElse(null));
    }
}
