package dev.oddbeacon.server.access;

import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Token;
import dev.oddbeacon.server.records.ChangeRecord;
import dev.oddbeacon.server.records.ChangeRecords;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Records what is done. Searches are not recorded. */
@Component
public class ChangeLog {
    private final ChangeRecords records;

    ChangeLog(ChangeRecords records) {
        this.records = records;
    }

    /** @param action a word, such as {@code sign-in} @param subject what it was done to */
    public void add(Caller caller, String action, String subject) {
        add(caller.account().map(Account::name), caller, action, subject);
    }

    /** Records what somebody does who has no session yet. */
    public void add(Optional<String> account, Caller caller, String action, String subject) {
        records.save(new ChangeRecord(account, caller.token().map(Token::name), caller.address(), action, subject));
    }
}
