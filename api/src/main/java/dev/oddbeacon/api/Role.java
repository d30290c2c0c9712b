package dev.oddbeacon.api;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** What an account or a token may do; each may do what those before may. */
public enum Role {
    /** Searches and reads. */
    READER,
    /** Registers repositories, says who sees them, keeps shared exclusion sets. */
    MAINTAINER,
    /** Keeps accounts and the service, and sees every repository. */
    ADMINISTRATOR;

    /** Its name on the wire. */
    public String label() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<Role> of(String label) {
        return Arrays.stream(values())
                .filter(role -> role.label().equals(label))
                .findFirst();
    }

    /** Whether it may do what another may. */
    public boolean covers(Role other) {
        return compareTo(other) >= 0;
    }

    /** The one that may do less. */
    public Role atMost(Role other) {
        return covers(other) ? other : this;
    }
}
