package dev.oddbeacon.server.access;

import dev.oddbeacon.api.Role;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Token;
import java.util.Optional;

/**
 * Whoever sent a request.
 *
 * @param account empty where accounts are off, and where nobody has signed in
 * @param role empty for somebody who has to sign in first
 * @param token that a program sent; it may have less than the role of its account
 * @param session of a browser
 * @param address that the request came from
 */
public record Caller(
        Optional<Account> account,
        Optional<Role> role,
        Optional<Token> token,
        Optional<String> session,
        String address) {

    /** Somebody at a service without accounts: whoever reaches it may do everything. */
    static Caller anybody(String address) {
        return new Caller(
                Optional.empty(), Optional.of(Role.ADMINISTRATOR), Optional.empty(), Optional.empty(), address);
    }

    /** The service itself, at work on what people share: it sees everything, and tells each what they may see. */
    static Caller service() {
        return anybody("");
    }

    /** Somebody who has not signed in. */
    static Caller outsider(String address) {
        return new Caller(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty(), address);
    }

    /** Somebody who has not signed in, where some repositories are for anybody. */
    static Caller guest(String address) {
        return new Caller(Optional.empty(), Optional.of(Role.READER), Optional.empty(), Optional.empty(), address);
    }

    static Caller person(Account account, String session, String address) {
        return new Caller(
                Optional.of(account), Optional.of(account.role()), Optional.empty(), Optional.of(session), address);
    }

    static Caller program(Account account, Token token, String address) {
        Role role = token.role().atMost(account.role());
        return new Caller(Optional.of(account), Optional.of(role), Optional.of(token), Optional.empty(), address);
    }

    /** Whether it is a program that sees some repositories alone, and may keep nothing else. */
    boolean isForSome() {
        return token.flatMap(Token::repositories).isPresent();
    }

    /** The same for all requests of one account or, of somebody without one, of one address. */
    public String key() {
        return account.map(known -> "account " + known.name()).orElse("address " + address);
    }

    /** Whether the caller may do what a role may. */
    public boolean may(Role wanted) {
        return role.map(own -> own.covers(wanted)).orElse(false);
    }
}
