package dev.oddbeacon.server.people;

import dev.oddbeacon.api.DeviceDecision;
import dev.oddbeacon.api.DeviceGrant;
import dev.oddbeacon.api.DeviceRequest;
import dev.oddbeacon.api.GrantedToken;
import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.accounts.Account;
import dev.oddbeacon.server.accounts.DeviceGrants;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/session/device}: programs that sign in through a browser, as RFC 8628 says. */
@RestController
@RequestMapping("/api/v1/session/device")
class DeviceController {
    private final Settings settings;
    private final DeviceGrants grants;
    private final TokenScope scope;
    private final ChangeLog changes;

    DeviceController(Settings settings, DeviceGrants grants, TokenScope scope, ChangeLog changes) {
        this.scope = scope;
        this.settings = settings;
        this.grants = grants;
        this.changes = changes;
    }

    /**
     * A program begins.
     *
     * @param program what it calls itself
     * @param token the name of a token that it wants, with its role, days and repositories; to sign somebody in, none
     */
    @PostMapping
    DeviceGrant begin(
            Caller caller,
            @RequestParam(name = "client_id", required = false) String program,
            @RequestParam(required = false) String token,
            @RequestParam(required = false) String role,
            @RequestParam(required = false) Integer days,
            @RequestParam(required = false) List<String> repository,
            HttpServletRequest request) {
        if (!settings.accounts()) {
            throw new NotFoundException("Nobody signs in at this service, so that programs need no token.");
        }
        DeviceGrants.Codes codes = grants.begin(
                program,
                caller.address(),
                Optional.ofNullable(token).map(name -> new NewToken(name, role, days, repository)));
        String page = request.getScheme() + "://" + request.getHeader("Host") + "/device"; // a host that is answered to
        return new DeviceGrant(
                codes.device(),
                codes.user(),
                page,
                page + "?code=" + codes.user(),
                (int) DeviceGrants.LIFE.toSeconds(),
                (int) DeviceGrants.INTERVAL.toSeconds());
    }

    /** A program asks whether it was allowed. */
    @PostMapping("/token")
    ResponseEntity<GrantedToken> ask(
            @RequestParam(name = "grant_type", required = false) String grantType,
            @RequestParam(name = "device_code", required = false) String deviceCode) {
        if (!DeviceGrant.GRANT_TYPE.equals(grantType)) {
            throw new BadRequestException(
                    "grant_type is " + DeviceGrant.GRANT_TYPE + ", the only one that is answered.");
        }
        GrantedToken answer = grants.ask(deviceCode);
        return ResponseEntity.status(answer.error() == null ? HttpStatus.OK : HttpStatus.BAD_REQUEST)
                .body(answer);
    }

    /** Somebody who is signed in looks at a program that waits, and allows or refuses it. */
    @PostMapping("/decision")
    DeviceRequest decide(Caller caller, @RequestBody DeviceDecision decision) {
        Account account = caller.account()
                .filter(_ -> caller.session().isPresent())
                .orElseThrow(
                        () -> new BadRequestException("Only somebody who signed in in a browser allows a program."));
        if (decision.allow() == null) {
            return told(decision, grants.find(decision.userCode()));
        }
        if (decision.allow()) {
            scope.checkRepositories(caller, grants.find(decision.userCode()).token());
        }
        DeviceGrants.Waiting waiting = grants.decide(decision.userCode(), account, decision.allow());
        changes.add(caller, decision.allow() ? "program-allowed" : "program-refused", waiting.program());
        return told(decision, waiting);
    }

    private static DeviceRequest told(DeviceDecision decision, DeviceGrants.Waiting waiting) {
        return new DeviceRequest(
                decision.userCode(),
                waiting.program(),
                waiting.address(),
                waiting.token().orElse(null));
    }
}
