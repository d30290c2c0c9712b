package dev.oddbeacon.api;

import java.util.List;

/**
 * A credential to give, in place of the one that its host has.
 *
 * @param host a name or address, with a port if it is not the usual one
 * @param kind {@code ssh-key} or {@code token}
 * @param user who the token is of; {@code git} by default. For ssh, locations say it
 * @param secret a private key without a passphrase, or a token
 * @param hostKeys of a host for ssh, each {@code TYPE BASE64}: the only ones by which it is known
 */
public record NewCredential(String host, String kind, String user, String secret, List<String> hostKeys) {}
