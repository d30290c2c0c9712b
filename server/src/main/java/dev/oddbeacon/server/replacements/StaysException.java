package dev.oddbeacon.server.replacements;

import java.io.Serial;

/** A file that is left as it is; the message says why. */
final class StaysException extends Exception {
    @Serial
    private static final long serialVersionUID = 1;

    StaysException(String why) {
        super(why);
    }
}
