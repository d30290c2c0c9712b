package dev.oddbeacon.client.command;

import dev.oddbeacon.api.DeviceGrant;
import dev.oddbeacon.api.GrantedToken;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.net.InetAddress;
import java.net.UnknownHostException;

/** A token that somebody who is signed in in a browser allows: RFC 8628. */
final class BrowserGrant {
    private static final String DEVICE = Service.path("session", "device");

    private BrowserGrant() {}

    /**
     * Shows an address and a short code, and waits until somebody has decided there.
     *
     * @param wanted what the token shall be; nothing to sign somebody in
     * @param again the command that begins anew
     * @throws ServiceProblem if it was refused, or nobody decided in time
     */
    static String await(Service service, Service.Parameters wanted, String again) throws InterruptedException {
        DeviceGrant grant =
                service.form(DEVICE, wanted.add("client_id", "oddbeacon on " + hostName()), DeviceGrant.class);
        if (grant.user_code() == null) {
            throw new ServiceProblem(
                    "Nobody signs in at this service: every command works as it is.", ExitStatus.NOTHING_FOUND);
        }
        Terminal.note("Open " + grant.verification_uri_complete());
        Terminal.note("and compare the code: " + grant.user_code());
        long end = System.nanoTime() + grant.expires_in() * 1_000_000_000L;
        while (System.nanoTime() < end) {
            Thread.sleep(grant.interval() * 1_000L);
            GrantedToken answer = service.form(
                    DEVICE + "/token",
                    new Service.Parameters()
                            .add("grant_type", DeviceGrant.GRANT_TYPE)
                            .add("device_code", grant.device_code()),
                    GrantedToken.class);
            if (answer.access_token() != null) {
                return answer.access_token();
            }
            if ("access_denied".equals(answer.error())) {
                throw new ServiceProblem("It was refused in the browser.", ExitStatus.WRONG);
            }
            if ("expired_token".equals(answer.error())) {
                break;
            }
        }
        throw new ServiceProblem("Nobody allowed it in time. Run " + again + " again.", ExitStatus.WRONG);
    }

    private static String hostName() {
        try {
            String name = InetAddress.getLocalHost().getHostName();
            return name.substring(0, Math.min(40, name.length()));
        } catch (UnknownHostException e) {
            return "this machine";
        }
    }
}
