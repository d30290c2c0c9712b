package dev.oddbeacon.server.access;

import dev.oddbeacon.api.ChangesAnswer;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Token;
import dev.oddbeacon.server.records.ChangeRecord;
import dev.oddbeacon.server.records.ChangeRecords;
import java.util.List;
import java.util.Optional;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Component;

/** Records what is done. Searches are not recorded. */
@Component
public class ChangeLog {
    private static final int PAGE = 100;

    private final ChangeRecords records;

    ChangeLog(ChangeRecords records) {
        this.records = records;
    }

    /**
     * A page of what was done, the newest first.
     *
     * @param before the id that {@code next} of the page before told
     * @param account null for all
     * @param action null for all
     */
    public ChangesAnswer page(long before, String account, String action) {
        List<ChangeRecord> found = records.before(before, account, action, Limit.of(PAGE + 1));
        List<ChangesAnswer.Change> page = found.stream()
                .limit(PAGE)
                .map(change -> new ChangesAnswer.Change(
                        change.id(),
                        change.happened(),
                        change.account().orElse(null),
                        change.token().orElse(null),
                        change.address(),
                        change.action(),
                        change.subject()))
                .toList();
        return new ChangesAnswer(page, found.size() > PAGE ? page.getLast().id() : null);
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
