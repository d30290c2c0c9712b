package dev.oddbeacon.core.meaning;

/**
 * Something that a file imports.
 *
 * @param from what it is in: a package, a type or a module, as written
 * @param name of what is imported there; empty for all of it
 * @param alias the name that it has in this file; the same name if nothing else is said
 * @param isMember whether members of a type are imported, not types
 */
record Import(String from, String name, String alias, boolean isMember) {
    boolean isOfAll() {
        return name.isEmpty();
    }
}
