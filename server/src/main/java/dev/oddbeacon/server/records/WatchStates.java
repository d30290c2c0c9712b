package dev.oddbeacon.server.records;

import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** What watched searches found when they were looked at last, by repository. */
@Component
public class WatchStates {
    private static final long OF_ALL = 0;

    private final JdbcTemplate database;

    WatchStates(JdbcTemplate database) {
        this.database = database;
    }

    /** The versions of searches that were looked at. */
    public Map<Long, Long> versions() {
        Map<Long, Long> versions = new HashMap<>();
        database.query(
                "select search_id, version from watch_state where repository_id = ?",
                row -> {
                    versions.put(row.getLong(1), row.getLong(2));
                },
                OF_ALL);
        return versions;
    }

    /** What was found, compressed, by the ids of repositories. */
    public Map<Long, byte[]> all(long search) {
        Map<Long, byte[]> all = new HashMap<>();
        database.query(
                "select repository_id, results from watch_state where search_id = ? and repository_id <> ?",
                row -> {
                    all.put(row.getLong(1), row.getBytes(2));
                },
                search,
                OF_ALL);
        return all;
    }

    public Optional<byte[]> of(long search, long repository) {
        return database
                .queryForList(
                        "select results from watch_state where search_id = ? and repository_id = ?",
                        byte[].class,
                        search,
                        repository)
                .stream()
                .findFirst();
    }

    /** @param results compressed; empty if nothing is found there */
    public void put(long search, long repository, Optional<byte[]> results) {
        if (results.isEmpty()) {
            database.update("delete from watch_state where search_id = ? and repository_id = ?", search, repository);
        } else {
            database.update(
                    "replace into watch_state (search_id, repository_id, version, results) values (?, ?, 0, ?)",
                    search,
                    repository,
                    results.get());
        }
    }

    public void forget(long search) {
        database.update("delete from watch_state where search_id = ?", search);
    }

    /** All was looked at as of this version. */
    public void putVersion(long search, long version) {
        database.update(
                "replace into watch_state (search_id, repository_id, version, results) values (?, ?, ?, '')",
                search,
                OF_ALL,
                version);
    }
}
