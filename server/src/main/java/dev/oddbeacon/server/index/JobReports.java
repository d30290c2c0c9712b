package dev.oddbeacon.server.index;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import dev.oddbeacon.server.Duty;
import dev.oddbeacon.server.catalogue.Activity;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Checked;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.processes.Processes;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.OptionalInt;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What jobs tell of their work beside its result: how far they are, and what they found out about the origin of a
 * repository. The process that serves wants to know; if that is another one, it is told through the records.
 */
@Component
class JobReports {
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final Duration BETWEEN_TOLD = Duration.ofSeconds(1);

    /** What a job finds out about the origin of a repository. */
    @JsonTypeInfo(use = JsonTypeInfo.Id.SIMPLE_NAME)
    sealed interface Finding {
        /** Its branches and tags are fetched. @param newest when its newest commit was made @param commits -1 if not known */
        record Fetched(String refs, Instant newest, boolean isBehind, int commits) implements Finding {
            static Fetched of(String refs, Instant newest, Checked.Behind behind) {
                return new Fetched(refs, newest, behind.is(), behind.commits().orElse(-1));
            }

            private Checked.Behind behind() {
                return new Checked.Behind(isBehind, commits < 0 ? OptionalInt.empty() : OptionalInt.of(commits));
            }
        }

        /** It could not be fetched. */
        record NotFetched(String why) implements Finding {}

        /** It has ended the service: it is not tried again by itself as it is. */
        record Held() implements Finding {}

        /** All of it that is wanted is indexed. */
        record Indexed() implements Finding {}
    }

    private final Processes processes;
    private final News news;
    private final Catalogue catalogue;
    private final Activity activity;
    private final Map<Long, Long> told = new ConcurrentHashMap<>(); // nanoseconds, by repository

    JobReports(Processes processes, News news, Catalogue catalogue, Activity activity) {
        this.processes = processes;
        this.news = news;
        this.catalogue = catalogue;
        this.activity = activity;
    }

    void progress(long repository, Repository.Progress progress) {
        if (processes.has(Duty.SERVING)) {
            catalogue.progress(repository, progress);
        } else if (isDue(repository)) {
            tell(News.Kind.PROGRESS, repository, progress);
        }
    }

    private boolean isDue(long repository) {
        long now = System.nanoTime();
        long due = told.merge(repository, now, (last, next) -> next - last >= BETWEEN_TOLD.toNanos() ? next : last);
        return due == now;
    }

    void found(long repository, Finding finding) {
        if (processes.has(Duty.SERVING)) {
            apply(repository, finding);
        } else {
            tell(News.Kind.ORIGIN, repository, finding);
        }
    }

    private void tell(News.Kind kind, long repository, Object what) {
        try {
            news.tell(
                    kind,
                    repository,
                    what instanceof Finding finding
                            ? JSON.writerFor(Finding.class).writeValueAsString(finding)
                            : JSON.writeValueAsString(what));
        } catch (DataAccessException | TransactionException e) {
            // nothing depends on it
        }
    }

    /** What another process has told. */
    void read(News.Item item) {
        switch (item.kind()) {
            case PROGRESS ->
                catalogue.progress(item.subject(), JSON.readValue(item.detail(), Repository.Progress.class));
            case ORIGIN -> apply(item.subject(), JSON.readValue(item.detail(), Finding.class));
            case REPOSITORY, SEGMENTS, PURGED, PEOPLE, SETS, SESSION ->
                throw new IllegalArgumentException("no report: " + item.kind());
        }
    }

    private void apply(long repository, Finding finding) {
        switch (finding) {
            case Finding.Fetched fetched ->
                activity.fetched(repository, fetched.refs(), fetched.newest(), fetched.behind());
            case Finding.NotFetched not -> activity.notFetched(repository, not.why());
            case Finding.Held _ -> activity.hold(repository);
            case Finding.Indexed _ -> activity.indexed(repository);
        }
    }
}
