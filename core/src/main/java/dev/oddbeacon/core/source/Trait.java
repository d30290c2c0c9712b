package dev.oddbeacon.core.source;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The role that a file plays. The order is that of the file format: add at the end. */
public enum Trait {
    TEST("tests and what only they use"),
    GENERATED("written by a program, and overwritten by it"),
    VENDORED("taken over from others"),
    TRANSLATION("texts of the interface in other languages"),
    DOCUMENTATION("written for people"),
    CONFIGURATION("settings of programs and builds"),
    MINIFIED("packed for machines, with very long lines"),
    BINARY("without a text");

    private final String meaning;

    Trait(String meaning) {
        this.meaning = meaning;
    }

    public String meaning() {
        return meaning;
    }

    /** As it is written in queries. */
    public String label() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<Trait> of(String label) {
        return Arrays.stream(values()).filter(trait -> trait.label().equals(label)).findFirst();
    }
}
