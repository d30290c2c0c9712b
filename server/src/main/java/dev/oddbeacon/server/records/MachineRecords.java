package dev.oddbeacon.server.records;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;

/** The machines of a cluster. */
@Component
public class MachineRecords {
    /** A cluster. @param objects where its machines share the files of the index */
    public record ClusterRecord(String name, String objects, String secretKeyHash) {}

    /**
     * A machine.
     *
     * @param address where it answers, with a slash at its end; empty before it does
     * @param peerAddress where the other machines reach it; empty before they do
     * @param holdings as it has told last
     */
    public record MachineRecord(
            long id,
            String name,
            String address,
            String peerAddress,
            Instant joined,
            boolean isRetired,
            Holdings holdings) {}

    /**
     * What a machine has on its disk.
     *
     * @param files of the index
     * @param bytes of them
     * @param missing files that are being brought
     * @param brought bytes since its start
     * @param mirrorsBehind mirrors that lack something of what is indexed
     */
    public record Holdings(int files, long bytes, int missing, long brought, int mirrors, int mirrorsBehind) {}

    private final JdbcTemplate database;

    MachineRecords(JdbcTemplate database) {
        this.database = database;
    }

    /** The cluster whose records these are; empty for one machine. */
    public Optional<ClusterRecord> cluster() {
        return database
                .query(
                        "select name, objects, secret_key_hash from cluster",
                        (row, _) -> new ClusterRecord(
                                row.getString("name"), row.getString("objects"), row.getString("secret_key_hash")))
                .stream()
                .findFirst();
    }

    /** Makes these the records of a cluster, unless they are already. @return whose they are now */
    public ClusterRecord cluster(ClusterRecord wanted) {
        database.update(
                "insert ignore into cluster (name, objects, secret_key_hash) select ?, ?, ? from dual where not exists (select 1 from cluster)",
                wanted.name,
                wanted.objects,
                wanted.secretKeyHash);
        return cluster().orElseThrow();
    }

    /**
     * Adds a machine, if it is none yet.
     *
     * @throws org.springframework.dao.DuplicateKeyException if another has its name
     */
    public void join(long id, String name, Instant joined) {
        if (database.update("update machine set name = ? where id = ?", name, id) == 0
                && all().stream().noneMatch(machine -> machine.id == id)) {
            database.update("insert into machine (id, name, joined) values (?, ?, ?)", id, name, Times.utc(joined));
        }
    }

    /** All of them, by name. */
    public List<MachineRecord> all() {
        return database.query(
                """
                select id, name, address, peer_address, joined, is_retired, files, bytes, missing, brought, mirrors, mirrors_behind
                from machine order by name""",
                (row, _) -> new MachineRecord(
                        row.getLong("id"),
                        row.getString("name"),
                        row.getString("address"),
                        row.getString("peer_address"),
                        Times.instant(row, "joined").orElseThrow(),
                        row.getBoolean("is_retired"),
                        new Holdings(
                                row.getInt("files"),
                                row.getLong("bytes"),
                                row.getInt("missing"),
                                row.getLong("brought"),
                                row.getInt("mirrors"),
                                row.getInt("mirrors_behind"))));
    }

    /** A machine tells where it answers, and what it holds. */
    public void tell(long id, String address, Holdings holdings) {
        database.update(
                "update machine set address = ?, files = ?, bytes = ?, missing = ?, brought = ?, mirrors = ?, mirrors_behind = ? where id = ?",
                address,
                holdings.files,
                holdings.bytes,
                holdings.missing,
                holdings.brought,
                holdings.mirrors,
                holdings.mirrorsBehind,
                id);
    }

    /** A machine tells where the others reach it. */
    public void peerAddress(long id, String address) {
        database.update("update machine set peer_address = ? where id = ?", address, id);
    }

    /** Takes a machine out: it begins nothing more. */
    public void retire(String name) {
        database.update("update machine set is_retired = true where name = ?", name);
    }

    public void remove(long id) {
        database.update("delete from machine where id = ?", id);
    }
}
