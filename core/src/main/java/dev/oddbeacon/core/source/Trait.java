package dev.oddbeacon.core.source;

import dev.oddbeacon.core.text.Coded;
import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/** The role that a file plays. What is stored of several is one bit for each, at the place that its code says. */
public enum Trait implements Coded {
    TEST(0, "tests and what only they use"),
    GENERATED(1, "written by a program, and overwritten by it"),
    VENDORED(2, "taken over from others"),
    TRANSLATION(3, "texts of the interface in other languages"),
    DOCUMENTATION(4, "written for people"),
    CONFIGURATION(5, "settings of programs and builds"),
    MINIFIED(6, "packed for machines, with very long lines"),
    BINARY(7, "without a text");

    private static final Trait[] BY_CODE = Coded.byCode(values());

    private final int code;
    private final String meaning;

    Trait(int code, String meaning) {
        this.code = code;
        this.meaning = meaning;
    }

    @Override
    public int code() {
        return code;
    }

    /** @param code as it is stored */
    public static Trait of(int code) {
        return BY_CODE[code];
    }

    /** Its bit among those of several traits. */
    public int mask() {
        return 1 << code;
    }

    public String meaning() {
        return meaning;
    }

    /** The name that queries use. */
    public String label() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<Trait> of(String label) {
        return Arrays.stream(values())
                .filter(trait -> trait.label().equals(label))
                .findFirst();
    }
}
