package dev.oddbeacon.api;

import java.time.Instant;
import java.util.List;

/**
 * A credential for private repositories, without what is secret of it.
 *
 * @param host with its port, unless that is the usual one
 * @param kind {@code ssh-key} or {@code token}
 * @param fingerprint of a key for ssh; null for a token
 * @param givenBy the account; null where nobody signs in
 */
public record CredentialInfo(
        long id,
        String host,
        String kind,
        String user,
        String fingerprint,
        List<HostKeys.Key> hostKeys,
        String givenBy,
        Instant given) {}
