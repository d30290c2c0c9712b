package dev.oddbeacon.server.access;

import dev.oddbeacon.api.ChangesAnswer;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Token;
import dev.oddbeacon.server.records.ChangeRecord;
import dev.oddbeacon.server.records.ChangeRecords;
import java.time.Instant;
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
     * Which records are wanted.
     *
     * @param account null for all
     * @param action null for all
     * @param since null for all
     * @param until null for all; this moment is not one of them
     */
    public record Wanted(String account, String action, Instant since, Instant until) {}

    /**
     * A page of what was done, the newest first.
     *
     * @param before the id that {@code next} of the page before told
     */
    public ChangesAnswer page(long before, Wanted wanted) {
        return page(before, wanted, PAGE);
    }

    /** A page of so many. */
    public ChangesAnswer page(long before, Wanted wanted, int most) {
        List<ChangeRecord> found =
                records.before(before, wanted.account, wanted.action, wanted.since, wanted.until, Limit.of(most + 1));
        List<ChangesAnswer.Change> page = found.stream()
                .limit(most)
                .map(change -> new ChangesAnswer.Change(
                        change.id(),
                        change.happened(),
                        change.account().orElse(null),
                        change.token().orElse(null),
                        change.address(),
                        change.action(),
                        change.subject()))
                .toList();
        return new ChangesAnswer(page, found.size() > most ? page.getLast().id() : null);
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
