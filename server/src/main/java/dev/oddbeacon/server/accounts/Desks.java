package dev.oddbeacon.server.accounts;

import dev.oddbeacon.server.records.DeskRecord;
import dev.oddbeacon.server.records.DeskRecords;
import dev.oddbeacon.server.secrets.Vault;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/** What follows people from browser to browser, encrypted for each. */
@Component
public class Desks {
    private final DeskRecords records;
    private final Vault vault;
    private final TransactionTemplate transaction;

    Desks(DeskRecords records, Vault vault, TransactionTemplate transaction) {
        this.records = records;
        this.vault = vault;
        this.transaction = transaction;
    }

    /** All parts that were kept of somebody, by name, as JSON. */
    public Map<String, String> of(Account account) {
        Map<String, String> parts = new TreeMap<>();
        for (DeskRecord record : records.findByAccount(account.name())) {
            vault.decrypt(purpose(account), record.content()).ifPresent(json -> parts.put(record.part(), json));
        }
        return parts;
    }

    /** Keeps a part in place of what was kept of it. */
    public void keep(Account account, String part, String json) {
        transaction.executeWithoutResult(_ -> {
            DeskRecord record = records.findByAccountAndPart(account.name(), part)
                    .orElseGet(() -> new DeskRecord(account.name(), part));
            record.content(vault.encrypt(purpose(account), json));
            records.save(record);
        });
    }

    private static String purpose(Account account) {
        return "desk of " + account.name();
    }
}
