package dev.oddbeacon.server.index;

/** The disk is full: a job waits until there is room again. */
final class NoRoomException extends RuntimeException {
    NoRoomException() {
        super("there is no room on the disk");
    }
}
