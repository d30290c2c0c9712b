package dev.oddbeacon.api;

import java.util.List;

/**
 * The keys that a host offers over ssh, to be compared with what its keepers tell.
 *
 * @param host with its port, unless that is 22
 * @param keys empty if it does not answer, or may not be asked
 */
public record HostKeys(String host, List<Key> keys) {
    /** @param key in Base64 @param fingerprint {@code SHA256:} and a hash, as OpenSSH shows it */
    public record Key(String type, String key, String fingerprint) {}
}
