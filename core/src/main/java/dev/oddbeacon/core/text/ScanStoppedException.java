package dev.oddbeacon.core.text;

/** A scan was asked to stop before it was through. */
public final class ScanStoppedException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public ScanStoppedException() {
        super("stopped", null, false, false);
    }
}
