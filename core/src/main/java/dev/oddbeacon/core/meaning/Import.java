package dev.oddbeacon.core.meaning;

/**
 * Something that a file imports.
 *
 * @param from what it is in: a package, a type or a module, as written
 * @param name of what is imported there; empty for all of it
 * @param alias the name that it has in this file; empty if all of it can be named without one
 * @param isMember whether members of a type are imported, not types
 */
record Import(String from, String name, String alias, boolean isMember) {
    /** Whether all that is there can be named as if it were here. */
    boolean isOfAll() {
        return name.isEmpty() && alias.isEmpty();
    }

    /** Whether it is a module that stands before the names of what is in it. */
    boolean isModule() {
        return name.isEmpty() && !alias.isEmpty();
    }
}
