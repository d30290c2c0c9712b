package dev.oddbeacon.server.access;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.Sessions;
import dev.oddbeacon.server.web.HostCookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Begins and forgets the session of a browser, however its person has signed in. */
@Component
public class SignIns {
    /** That a browser's session is known by. */
    static final HostCookie COOKIE = new HostCookie("oddbeacon-session");

    private final Settings settings;
    private final Sessions sessions;
    private final ChangeLog changes;

    SignIns(Settings settings, Sessions sessions, ChangeLog changes) {
        this.settings = settings;
        this.sessions = sessions;
        this.changes = changes;
    }

    /** The session that this browser had ends: nobody goes on with a session that another has begun. */
    public void begin(Account account, HttpServletRequest request, HttpServletResponse response) {
        COOKIE.of(request).ifPresent(sessions::end);
        String session = sessions.begin(account);
        changes.add(Optional.of(account.name()), Caller.outsider(request.getRemoteAddr()), "sign-in", account.name());
        COOKIE.set(request, response, session, settings.sessions().age());
    }

    /** @param tried the account that somebody wanted to be; empty where it may be something that nobody should read */
    public void failed(HttpServletRequest request, String tried) {
        changes.add(Optional.empty(), Caller.outsider(request.getRemoteAddr()), "sign-in-failed", tried);
    }

    public void forget(HttpServletRequest request, HttpServletResponse response) {
        COOKIE.forget(request, response);
    }
}
