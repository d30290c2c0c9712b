package dev.oddbeacon.server.rosters;

import dev.oddbeacon.api.NewRoster;
import dev.oddbeacon.api.RosterInfo;
import dev.oddbeacon.api.RosterPreview;
import dev.oddbeacon.git.Credential;
import dev.oddbeacon.git.ListSource;
import dev.oddbeacon.git.MirrorFolder;
import dev.oddbeacon.git.RepositoryProblemException;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.catalogue.Catalogue;
import dev.oddbeacon.server.catalogue.Repository;
import dev.oddbeacon.server.index.IndexJobs;
import dev.oddbeacon.server.records.RosterRecord;
import dev.oddbeacon.server.records.RosterRecords;
import dev.oddbeacon.server.rosters.RosterPlan.Kind;
import dev.oddbeacon.server.rosters.RosterPlan.Step;
import dev.oddbeacon.server.web.NotFoundException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/** The lists of repositories that are followed. */
@Component
public class Rosters {
    private static final Logger LOG = LoggerFactory.getLogger(Rosters.class);
    private static final JsonMapper JSON = JsonMapper.shared();
    private static final int AT_ONCE = 100; // repositories registered in one transaction

    private final Settings settings;
    private final Credential.Store credentials;
    private final RosterRecords records;
    private final TransactionTemplate transaction;
    private final Catalogue catalogue;
    private final IndexJobs jobs;
    private final Clock clock;

    Rosters(
            Settings settings,
            Credential.Store credentials,
            RosterRecords records,
            TransactionTemplate transaction,
            Catalogue catalogue,
            IndexJobs jobs,
            Clock clock) {
        this.settings = settings;
        this.credentials = credentials;
        this.records = records;
        this.transaction = transaction;
        this.catalogue = catalogue;
        this.jobs = jobs;
        this.clock = clock;
    }

    /** All of them by name. */
    public List<RosterInfo> all() {
        return records.findAllByOrderByName().stream().map(this::info).toList();
    }

    /** @throws NotFoundException if there is none of that name */
    RosterInfo get(String name) {
        return info(record(name));
    }

    private RosterRecord record(String name) {
        return records.findById(name).orElseThrow(() -> new NotFoundException("There is no roster " + name + "."));
    }

    private RosterInfo info(RosterRecord record) {
        List<Repository> came = catalogue.all().stream()
                .filter(repository -> repository.cameOf(record.name()))
                .toList();
        return new RosterInfo(
                definition(record),
                record.readAt().orElse(null),
                record.problem().orElse(null),
                came.size(),
                (int) came.stream()
                        .filter(repository -> repository.goneSince().isPresent())
                        .count(),
                record.leftOut());
    }

    private static NewRoster definition(RosterRecord record) {
        return JSON.readValue(record.definition(), NewRoster.class);
    }

    /** What following a roster would do now. @param roster checked */
    RosterPreview preview(NewRoster roster) throws RepositoryProblemException {
        Path mirror = mirror("preview-" + roster.name());
        try {
            RosterPlan plan = plan(roster, mirror);
            return new RosterPreview(
                    plan.steps().stream().map(Rosters::entry).toList(),
                    plan.problem().orElse(null));
        } finally {
            delete(mirror);
        }
    }

    private static RosterPreview.Entry entry(Step step) {
        return new RosterPreview.Entry(
                step.wanted().name(),
                step.wanted().title(),
                step.wanted().location(),
                step.wanted().labels(),
                step.wanted().branches(),
                step.viewers().stream().sorted().toList(),
                step.kind().name().toLowerCase(Locale.ROOT).replace('_', '-'),
                step.problem().orElse(null));
    }

    private RosterPlan plan(NewRoster roster, Path mirror) throws RepositoryProblemException {
        ListSource source =
                new ListSource(settings.transport(credentials), roster.source(), Optional.ofNullable(roster.path()));
        return RosterPlan.of(roster, Listed.of(source, mirror), catalogue.now(), clock.instant());
    }

    /** A folder of ours for the repository that holds a list. */
    private Path mirror(String name) {
        return settings.data().toAbsolutePath().resolve("rosters").resolve(name + ".git");
    }

    private static void delete(Path mirror) {
        try {
            if (Files.exists(mirror)) {
                MirrorFolder.delete(mirror);
            }
        } catch (IOException e) {
            LOG.warn("The mirror {} could not be deleted: {}", mirror.getFileName(), e.getMessage());
        }
    }

    /** Follows a roster from now on, in place of one of its name. @param roster checked */
    synchronized RosterInfo put(NewRoster roster) throws RepositoryProblemException {
        RosterPlan plan = plan(roster, mirror(roster.name())); // what cannot be read is not followed
        transaction.executeWithoutResult(_ -> {
            records.deleteById(roster.name());
            records.flush();
            records.save(new RosterRecord(roster.name(), JSON.writeValueAsString(roster)));
        });
        return carriedOut(roster, plan);
    }

    /** Reads a roster, and does what it says. What it cannot be read for is told, and changes nothing. */
    synchronized RosterInfo read(String name) {
        NewRoster roster = definition(record(name));
        try {
            return carriedOut(roster, plan(roster, mirror(name)));
        } catch (RepositoryProblemException e) {
            LOG.info("The roster {} cannot be read: {}", name, e.getMessage());
            note(name, record -> record.problem(Optional.of(e.getMessage() + " Nothing is taken out.")));
            return get(name);
        }
    }

    private RosterInfo carriedOut(NewRoster roster, RosterPlan plan) {
        carryOut(roster, plan);
        note(
                roster.name(),
                record -> record.read(
                        clock.instant(),
                        plan.problem(),
                        plan.steps(Kind.LEFT_OUT).size()));
        return get(roster.name());
    }

    private void note(String name, Consumer<RosterRecord> what) {
        transaction.executeWithoutResult(_ -> records.findById(name).ifPresent(what));
    }

    private void carryOut(NewRoster roster, RosterPlan plan) {
        List<Step> fresh = plan.steps(Kind.NEW);
        for (int from = 0; from < fresh.size(); from += AT_ONCE) {
            jobs.registerAll(fresh.subList(from, Math.min(fresh.size(), from + AT_ONCE)).stream()
                    .map(step -> new IndexJobs.Wanted(
                            step.wanted(), step.wanted().title(), step.viewers(), Optional.of(roster.name())))
                    .toList());
        }
        for (Step step : plan.steps(Kind.CHANGED)) {
            describe(step);
        }
        for (Step step : plan.steps(Kind.LEAVING)) {
            Repository leaving = step.known().orElseThrow();
            if (step.isDue()) {
                LOG.info("{} is taken out, as it is not in the roster {} any more", leaving.name(), roster.name());
                remove(leaving);
            } else if (leaving.goneSince().isEmpty() && plan.problem().isEmpty()) {
                jobs.gone(leaving, clock.instant());
            }
        }
    }

    private void describe(Step step) {
        try {
            jobs.describe(step.known().orElseThrow(), step.wanted(), step.viewers());
        } catch (IOException e) {
            LOG.warn("{} could not be changed to its end: {}", step.wanted().name(), e.getMessage());
        }
    }

    private void remove(Repository repository) {
        try {
            jobs.remove(repository);
        } catch (IOException e) {
            LOG.warn("{} could not be taken out to its end: {}", repository.name(), e.getMessage());
        }
    }

    /** Follows a roster no more; what came of it stays. @throws NotFoundException if there is none of that name */
    void remove(String name) {
        RosterRecord record = record(name);
        jobs.leave(name);
        records.delete(record);
        delete(mirror(name));
    }
}
