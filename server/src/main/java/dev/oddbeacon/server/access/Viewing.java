package dev.oddbeacon.server.access;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import dev.oddbeacon.api.Role;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Token;
import dev.oddbeacon.server.catalogue.Registered;
import dev.oddbeacon.server.catalogue.Repository;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/**
 * Who sees which repositories: administrators all, others those that are visible to everybody, to a team of theirs, or to
 * them. A token sees what a person of its role would, and one for some repositories no more than those. What is not known
 * is denied.
 */
@Component
class Viewing implements Visibility {
    /** By the very object, which is another after each change. */
    private final Cache<Account, Standing> standings =
            Caffeine.newBuilder().weakKeys().build();

    private record Standing(long visibility, Set<String> viewers) {}

    @Override
    public Sight sight(Caller caller, Registered registered) {
        Optional<SortedSet<String>> only = caller.token().flatMap(Token::repositories);
        if (only.isPresent() && isAdministrator(caller)) {
            return new Sight(
                    List.of("named", only.get()),
                    false,
                    repository -> only.get().contains(repository.name()));
        }
        if (caller.may(Role.ADMINISTRATOR)) {
            return new Sight("all", true, _ -> true);
        }
        if (caller.role().isEmpty()) {
            return new Sight("nothing", false, _ -> false);
        }
        Set<String> viewers =
                caller.account().map(account -> viewers(account, registered)).orElse(Set.of(Repository.ANYBODY));
        return new Sight(
                List.of(viewers, only),
                false,
                repository -> (only.isEmpty() || only.get().contains(repository.name()))
                        && repository.viewers().stream().anyMatch(viewers::contains));
    }

    /** What somebody stands for, without what no repository names: so that people who see the same are not told apart. */
    private Set<String> viewers(Account account, Registered registered) {
        Standing known = standings.getIfPresent(account);
        if (known == null || known.visibility != registered.visibility()) {
            Set<String> viewers = Repository.viewersOf(account.name(), account.teams()).stream()
                    .filter(registered.viewers()::contains)
                    .collect(Collectors.toUnmodifiableSet());
            known = new Standing(registered.visibility(), viewers);
            standings.put(account, known);
        }
        return known.viewers;
    }

    /** Whoever may name any repository when making the token. */
    private static boolean isAdministrator(Caller caller) {
        return caller.account()
                .filter(account -> account.role() == Role.ADMINISTRATOR)
                .isPresent();
    }
}
