package dev.oddbeacon.core.source;

import java.util.Locale;
import java.util.Optional;

/** What a declaration declares. The order is that of the numbers in segments. */
public enum Kind {
    /** The position after {@code extends} and the like: a use, not a declaration. */
    SUPERTYPE,
    /** A name of a type to which members are added from outside: a use, not a declaration. */
    EXTENSION,
    NAMESPACE, CLASS, INTERFACE, TRAIT, STRUCT, UNION, ENUM, RECORD, OBJECT, TYPE,
    FUNCTION, METHOD, CONSTRUCTOR, PROTOTYPE, FIELD, CONSTANT, VARIABLE, MACRO,
    KEY, HEADING, TABLE, VIEW, INDEX, TARGET, SELECTOR, ID, STAGE;

    private static final Kind[] ALL = values();

    /** Whether a use, of which only the position is special. */
    public boolean isUse() {
        return this == SUPERTYPE || this == EXTENSION;
    }

    /** Whether types are declared so: what may extend and be extended. */
    public boolean isType() {
        return switch (this) {
            case CLASS, INTERFACE, TRAIT, STRUCT, UNION, ENUM, RECORD, OBJECT, TYPE -> true;
            default -> false;
        };
    }

    /** Whether it can be called. */
    public boolean isCallable() {
        return switch (this) {
            case FUNCTION, METHOD, CONSTRUCTOR, PROTOTYPE -> true;
            default -> false;
        };
    }

    public String label() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Kind at(int number) {
        return ALL[number];
    }

    /** The kind of a label, in any case. */
    public static Optional<Kind> of(String label) {
        for (Kind kind : ALL) {
            if (!kind.isUse() && kind.label().equalsIgnoreCase(label)) {
                return Optional.of(kind);
            }
        }
        return Optional.empty();
    }
}
