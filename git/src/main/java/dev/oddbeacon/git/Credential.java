package dev.oddbeacon.git;

import java.util.List;
import java.util.Optional;

/** What a host is shown so that it lets the service in. */
public sealed interface Credential {
    /**
     * A private key for ssh, and the keys by which the host is known.
     *
     * @param key as OpenSSH reads it, without a passphrase
     */
    record SshKey(String key, List<HostKey> hostKeys) implements Credential {
        @Override
        public String toString() {
            return "SshKey"; // nothing of it belongs into a log
        }
    }

    /** A name and a secret for https; for http only to this machine itself. */
    record Token(String user, String secret) implements Credential {
        @Override
        public String toString() {
            return "Token";
        }
    }

    /** Those that the service was given. */
    @FunctionalInterface
    interface Store {
        /** None at all: Git asks those of the user that the service runs as. */
        Store NONE = _ -> Optional.empty();

        Optional<Credential> of(Location.Host host);
    }
}
