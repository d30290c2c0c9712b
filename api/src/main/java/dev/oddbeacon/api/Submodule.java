package dev.oddbeacon.api;

/**
 * Where a submodule leads.
 *
 * @param commit that is wanted of it
 * @param location as the repository's own {@code .gitmodules} tells it; null if it does not
 * @param repository the registered one with that location; null if there is none that the caller sees
 */
public record Submodule(String commit, String location, String repository) {}
