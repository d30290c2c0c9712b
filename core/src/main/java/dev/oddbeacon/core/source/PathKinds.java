package dev.oddbeacon.core.source;

/** What a path alone says of a file that need not be there any more. */
public final class PathKinds {
    private PathKinds() {}

    public static String type(String path) {
        return FileTypes.of(path, Signs.NONE, true, _ -> false);
    }

    /** The traits, as {@link Traits#mask} has them. */
    public static int traits(String path) {
        return Traits.mask(Traits.of(path, type(path), Signs.NONE, true).keySet());
    }
}
