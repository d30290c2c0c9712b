package dev.oddbeacon.server.objects;

import java.io.IOException;

/** The store of objects does not do its work now: what needs it waits. */
public final class StoreUnreachableException extends RuntimeException {
    StoreUnreachableException(ObjectStore store, IOException reason) {
        super("The objects in " + store.place() + " cannot be reached: " + reason.getMessage(), reason);
    }
}
