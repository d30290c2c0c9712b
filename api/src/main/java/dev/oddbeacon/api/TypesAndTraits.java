package dev.oddbeacon.api;

import java.util.List;

/** The types and traits that files can have: the answer to {@code GET /api/v1/types}. */
public record TypesAndTraits(List<Type> types, List<Trait> traits) {

    /**
     * A language or format.
     *
     * @param names of its files: whole, {@code *.ending} or {@code start*}
     * @param interpreters that the first line of a file without an ending may name
     */
    public record Type(String name, String title, List<String> names, List<String> interpreters) {}

    /** A role that a file plays. */
    public record Trait(String name, String meaning) {}
}
