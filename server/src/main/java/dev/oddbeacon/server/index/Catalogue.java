package dev.oddbeacon.server.index;

import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.server.records.BranchRecord;
import dev.oddbeacon.server.records.HistoryState;
import dev.oddbeacon.server.records.RepositoryRecord;
import dev.oddbeacon.server.records.RepositoryRecords;
import dev.oddbeacon.server.events.Events;
import jakarta.annotation.PostConstruct;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentSkipListMap;
import org.springframework.stereotype.Component;

/**
 * The registered repositories as people see them, in memory, so that searching and looking go on while MariaDB
 * does not answer. Whoever changes a record tells it here.
 */
@Component
public class Catalogue {
    /** A repository and the id of its record. */
    public record Entry(long id, RepositoryInfo info) {}

    private final RepositoryRecords records;
    private final Events events;
    private final Map<String, Entry> entries = new ConcurrentSkipListMap<>();

    Catalogue(RepositoryRecords records, Events events) {
        this.records = records;
        this.events = events;
    }

    @PostConstruct
    void load() {
        records.findAll().forEach(record -> entries.put(record.name(), new Entry(record.id(), info(record))));
    }

    public List<RepositoryInfo> all() {
        return entries.values().stream().map(Entry::info).toList();
    }

    public List<Entry> entries() {
        return List.copyOf(entries.values());
    }

    public Optional<Entry> find(String name) {
        return Optional.ofNullable(entries.get(name));
    }

    void changed(RepositoryRecord record) {
        RepositoryInfo info = info(record);
        entries.put(record.name(), new Entry(record.id(), info));
        events.send("repository", info);
    }

    void removed(String name) {
        entries.remove(name);
        events.send("removed", Map.of("name", name));
    }

    void progress(String name, RepositoryInfo.Progress progress) {
        Entry entry = entries.computeIfPresent(name, (_, old) -> new Entry(old.id, new RepositoryInfo(old.info.name(), old.info.title(),
                old.info.location(), old.info.labels(), old.info.state(), old.info.problem(), progress, old.info.branches(), old.info.history())));
        if (entry != null) {
            events.send("repository", entry.info);
        }
    }

    private static RepositoryInfo.History history(HistoryState state) {
        return new RepositoryInfo.History(state.complete(), state.commits(), state.oldest().orElse(null), state.cut(), state.withoutLines(), state.problem().orElse(null));
    }

    private static RepositoryInfo info(RepositoryRecord record) {
        List<RepositoryInfo.Branch> branches = new ArrayList<>();
        record.branches().stream()
                .sorted(Comparator.comparing((BranchRecord branch) -> !branch.searchedByDefault()).thenComparing(BranchRecord::name))
                .forEach(branch -> branches.add(new RepositoryInfo.Branch(branch.name(), branch.commitId(), branch.committed(), branch.indexed(),
                        branch.files(), branch.lineCount(), branch.byteCount(), branch.skipped())));
        return new RepositoryInfo(record.name(), record.title(), record.location(), List.copyOf(record.labels()),
                record.state().name().toLowerCase(Locale.ROOT), record.problem().orElse(null), null, branches, history(record.history()));
    }
}
