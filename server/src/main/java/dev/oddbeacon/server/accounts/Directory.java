package dev.oddbeacon.server.accounts;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.server.processes.News;
import dev.oddbeacon.server.records.AccountRecord;
import dev.oddbeacon.server.records.AccountRecords;
import dev.oddbeacon.server.records.TeamRecord;
import dev.oddbeacon.server.records.TeamRecords;
import dev.oddbeacon.server.records.TokenRecord;
import dev.oddbeacon.server.records.TokenRecords;
import dev.oddbeacon.server.secrets.Secrets;
import jakarta.annotation.PostConstruct;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Everybody who may sign in, in memory: no request reads the records to know who asks, and people go on searching while
 * MariaDB does not answer.
 *
 * <p>Concurrency: one change at a time; after its transaction everything is read anew and published as a whole.
 */
@Component
@Order(0) // before those who tell listeners
public class Directory implements News.Hearer {
    private record Known(Map<String, Account> accounts, Map<String, Token> tokens, SortedSet<String> teams) {}

    private final AccountRecords accounts;
    private final TeamRecords teams;
    private final TokenRecords tokens;
    private final TransactionTemplate transaction;
    private final News news;
    private final Object changing = new Object();
    private volatile Known known = new Known(Map.of(), Map.of(), Collections.emptySortedSet());

    Directory(
            AccountRecords accounts,
            TeamRecords teams,
            TokenRecords tokens,
            TransactionTemplate transaction,
            News news) {
        this.news = news;
        this.accounts = accounts;
        this.teams = teams;
        this.tokens = tokens;
        this.transaction = transaction;
    }

    /** An account whose person may sign in. */
    public Optional<Account> account(String name) {
        return Optional.ofNullable(known.accounts.get(name));
    }

    /** @param hash as {@link Secrets#hash} makes it */
    Optional<Token> token(String hash) {
        return Optional.ofNullable(known.tokens.get(hash));
    }

    Optional<Token> token(long id) {
        return known.tokens.values().stream().filter(token -> token.id() == id).findFirst();
    }

    /** Everybody who may sign in, by name. */
    public List<Account> accounts() {
        return known.accounts.values().stream()
                .sorted(Comparator.comparing(Account::name))
                .toList();
    }

    /** Names of all teams. */
    public SortedSet<String> teams() {
        return known.teams;
    }

    /** Whether anybody may keep accounts; if not, the service offers to make the first one. */
    public boolean hasAdministrator() {
        return known.accounts.values().stream().anyMatch(account -> account.role() == Role.ADMINISTRATOR);
    }

    /** Changes records in a transaction; everybody sees it when this returns. */
    <T> T change(Supplier<T> change) {
        synchronized (changing) {
            T result = transaction.execute(_ -> {
                T changed = change.get();
                news.tell(News.Kind.PEOPLE, 0);
                return changed;
            });
            load();
            return result;
        }
    }

    @Override
    public News.Kind kind() {
        return News.Kind.PEOPLE;
    }

    @Override
    public void heard(News.Item item) {
        synchronized (changing) {
            load();
        }
    }

    @PostConstruct
    void load() {
        known = transaction.execute(_ -> read());
    }

    private Known read() {
        List<TeamRecord> allTeams = teams.findAll();
        Map<String, Account> byName = accounts.findAll().stream()
                .filter(record -> record.ended().isEmpty())
                .map(record -> account(record, allTeams))
                .collect(Collectors.toUnmodifiableMap(Account::name, account -> account));
        Map<String, Token> byHash = tokens.findAll().stream()
                .filter(record -> byName.containsKey(record.account()))
                .collect(Collectors.toUnmodifiableMap(TokenRecord::hash, Directory::token));
        SortedSet<String> names =
                allTeams.stream().map(TeamRecord::name).collect(Collectors.toCollection(TreeSet::new));
        return new Known(byName, byHash, Collections.unmodifiableSortedSet(names));
    }

    private static Account account(AccountRecord record, List<TeamRecord> teams) {
        SortedSet<String> own = teams.stream()
                .filter(team -> team.members().contains(record.name()))
                .map(TeamRecord::name)
                .collect(Collectors.toCollection(TreeSet::new));
        return new Account(
                record.name(),
                record.displayName(),
                record.role(),
                Collections.unmodifiableSortedSet(own),
                record.confirmed());
    }

    private static Token token(TokenRecord record) {
        Optional<SortedSet<String>> only = record.repositories().isEmpty()
                ? Optional.empty()
                : Optional.of(Collections.unmodifiableSortedSet(new TreeSet<>(record.repositories())));
        return new Token(record.id(), record.account(), record.name(), record.role(), only, record.ends());
    }
}
