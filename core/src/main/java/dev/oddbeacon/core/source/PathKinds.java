package dev.oddbeacon.core.source;

import java.util.List;

/** What a path alone says of a file that need not be there any more. */
public final class PathKinds {
    private PathKinds() {}

    public static String type(String path) {
        return FileTypes.of(path, Signs.NONE, true, _ -> false);
    }

    /** Labels of traits. */
    public static List<String> traits(String path) {
        return Traits.labels(Traits.mask(Traits.of(path, type(path), Signs.NONE, true).keySet()));
    }
}
